"""The server: Django, over MariaDB. It maps rows to core records and asks the core."""
