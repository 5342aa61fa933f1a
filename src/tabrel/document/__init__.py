"""The study document: reading, writing and its JSON Schema; results as JSON."""
