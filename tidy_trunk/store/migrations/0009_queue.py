"""What takes long goes through a queue in the database, and what arrives of a recording is known to every server.

The queue's own tables are procrastinate's, of version 3.10: where a newer one wants more, a migration after this one brings it.
"""

from procrastinate.schema import SchemaManager

UP = (
    "alter table recording add column task bigint",
    # Nobody is at them any more: before, they were only known to the program that read them.
    """
    update recording set state = 'failed', message = 'the program was ended while it was read: drop the file in again'
    where state in ('waiting', 'reading')
    """,
    """
    create table upload (
        id uuid primary key,
        total bigint not null,
        received bigint not null default 0,
        touched timestamp with time zone not null
    )
    """,
)


def up(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(SchemaManager.get_schema().replace("%", "%%"))
    for statement in UP:
        db.execute_sql(statement)


def down(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql("drop table upload")
    db.execute_sql("alter table recording drop column task")
    for table in ("events", "periodic_defers", "jobs", "workers"):
        db.execute_sql(f"drop table procrastinate_{table} cascade")
    functions = "select 'drop function ' || oid::regprocedure from pg_proc where proname like 'procrastinate%%'"
    for (statement,) in db.execute_sql(functions).fetchall():
        db.execute_sql(statement)
    for name in ("procrastinate_job_to_defer_v1", "procrastinate_job_status", "procrastinate_job_event_type"):
        db.execute_sql(f"drop type if exists {name}")
