"""Photographs of the log, kept small, each beside the entry that tells of it."""

UP = """
create table log_photo (
    id uuid primary key,
    job_id uuid not null references job (id) on delete cascade,
    jpeg bytea not null
);
create index photos_of_job on log_photo (job_id)
"""

DOWN = "drop table log_photo"


def up(migrator, db):  # type: ignore[no-untyped-def]
    for statement in filter(str.strip, UP.split(";")):
        db.execute_sql(statement)


def down(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(DOWN)
