"""The study document: reading, writing and its JSON Schema; templates; results as JSON; how one study differs from another."""
