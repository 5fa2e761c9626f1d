"""PostgreSQL: the tables, one module of queries per noun, migrations."""
