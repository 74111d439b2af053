"""Equipment of the user's own: classes of devices and cables that belong to no job."""

UP = """
create table equipment (
    id text primary key,
    body jsonb not null,
    changed timestamp with time zone not null
)
"""

DOWN = "drop table equipment"


def up(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(UP)


def down(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(DOWN)
