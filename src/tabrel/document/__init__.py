"""The study document: read, written, its schema; templates; results as JSON; zips and workbooks that come in; differences."""
