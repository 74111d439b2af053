"""Who the data are: a name of their own, by which kept sounds are found; and the sounds of what was deleted."""

UP = (
    "create table data_identity (id uuid primary key)",
    "insert into data_identity values (gen_random_uuid())",
    "create table unwanted_media (recording_id uuid primary key)",
    # Whoever deletes a recording, or the job that it is of: what is still to be done is written down in the same breath.
    """
    create function note_unwanted_media() returns trigger language plpgsql as $$
    begin
        insert into unwanted_media values (old.id) on conflict do nothing;
        return null;
    end $$
    """,
    "create trigger recording_deleted after delete on recording for each row execute function note_unwanted_media()",
)

DOWN = (
    "drop trigger recording_deleted on recording",
    "drop function note_unwanted_media",
    "drop table unwanted_media",
    "drop table data_identity",
)


def up(migrator, db):  # type: ignore[no-untyped-def]
    for statement in UP:
        db.execute_sql(statement)


def down(migrator, db):  # type: ignore[no-untyped-def]
    for statement in DOWN:
        db.execute_sql(statement)
