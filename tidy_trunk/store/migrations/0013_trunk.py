"""The trunk: pieces that the user owns, what jobs have claimed of them, and what was packed."""

UP = """
create table trunk_piece (
    id uuid primary key,
    seq bigint generated always as identity,
    body jsonb not null,
    changed timestamp with time zone not null
);
create table trunk_claim (
    piece_id uuid not null references trunk_piece (id) on delete cascade,
    day text not null,
    job_id uuid not null references job (id) on delete cascade,
    need text not null,
    primary key (piece_id, day)
);
create index claims_of_job on trunk_claim (job_id);
create table packing_tick (
    job_id uuid not null references job (id) on delete cascade,
    item text not null,
    state text not null,
    who text not null,
    made timestamp with time zone not null,
    primary key (job_id, item)
)
"""

DOWN = """
drop table packing_tick;
drop table trunk_claim;
drop table trunk_piece
"""


def up(migrator, db):  # type: ignore[no-untyped-def]
    for statement in filter(str.strip, UP.split(";")):
        db.execute_sql(statement)


def down(migrator, db):  # type: ignore[no-untyped-def]
    for statement in filter(str.strip, DOWN.split(";")):
        db.execute_sql(statement)
