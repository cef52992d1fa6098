"""Plans on disk: tables, migrations, repositories and the journal that undoes."""
