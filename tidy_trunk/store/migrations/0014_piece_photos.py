"""A photograph of a piece of the trunk, kept small."""

UP = """
create table piece_photo (
    piece_id uuid primary key references trunk_piece (id) on delete cascade,
    jpeg bytea not null
)
"""

DOWN = "drop table piece_photo"


def up(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(UP)


def down(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(DOWN)
