"""The HTTP interface: routers without formulas or SQL, and the front end as static files."""
