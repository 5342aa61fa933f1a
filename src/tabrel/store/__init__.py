"""The store: SQLite, and the only place with SQL."""
