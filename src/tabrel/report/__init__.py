"""Files that leave Tabrel: core objects in, bytes out.

`inputs`     everything a report tells, computed once from the study: `ReportInputs`
`blocks`      what a report is made of, whatever it is written as: `Report`, `Heading`, `Table`, `Picture` …
`words`       numbers with unit and uncertainty
`own_text`    the analyst's own text between the parts, Markdown without HTML
`figures`     drawings from the core's layouts as SVG, charts from its arrays
`parts`       the parts of a report, each a run of blocks
`contents`    the parts put together as the plan has them: `report_of`
`columns`     widths of the columns of a printed table: `column_widths`
`pdf`         a report as pages, by Typst: `pdf_of`, `pages_of`
`html`        a report as one file: `html_of`
`data_table`  what a table of plain values is: `DataTable`, `Field`
`behaviour_tables`   tables of what filters do in their engine
`tables`      the study as tables of plain values: `data_tables`
`xlsx`, `csv_tables`   these tables as a workbook, as CSV
`package`     all of it as one zip with its descriptor, and back: `package_of`, `study_in_package`
`bench_sheet`   blank measuring sheets and part labels to print before the work: `bench_sheets`, `part_labels`
`preview`     reports that are looked at before they are issued: `Previews`, `page_picture`
`written`     a study written to a file by the file's ending: `written_as`

The folders fonts and templates hold what pages are set with.
"""
