"""Signal walks: what was to be looked at, and what was seen."""

UP = """
create table walk (
    id uuid primary key,
    job_id uuid not null references job (id) on delete cascade,
    revision integer not null,
    items jsonb not null,
    created timestamp with time zone not null
);
create index walk_of_job on walk (job_id, created);
create table walk_mark (
    walk_id uuid not null references walk (id) on delete cascade,
    item text not null,
    mark text not null,
    who text not null,
    made timestamp with time zone not null,
    primary key (walk_id, item)
);
"""

DOWN = "drop table walk_mark; drop table walk;"


def up(migrator, db):  # type: ignore[no-untyped-def]
    for statement in filter(str.strip, UP.split(";")):
        db.execute_sql(statement)


def down(migrator, db):  # type: ignore[no-untyped-def]
    for statement in filter(str.strip, DOWN.split(";")):
        db.execute_sql(statement)
