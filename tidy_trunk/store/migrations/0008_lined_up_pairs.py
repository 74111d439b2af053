"""Pairs of devices that were lined up: what was found is offered the next time."""

UP = """
create table lined_up_pair (
    key text primary key,
    body jsonb not null,
    changed timestamp with time zone not null
)
"""

DOWN = "drop table lined_up_pair"


def up(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(UP)


def down(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(DOWN)
