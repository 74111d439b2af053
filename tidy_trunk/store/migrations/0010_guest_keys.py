"""Keys of the telephones that are let in from the set's own network."""

UP = """
create table guest_key (
    id text primary key,
    name text not null,
    access text not null,
    link text not null,
    digest text not null default '',
    created timestamp with time zone not null,
    entered timestamp with time zone,
    seen timestamp with time zone,
    address text not null default ''
)
"""

DOWN = "drop table guest_key"


def up(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(UP)


def down(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(DOWN)
