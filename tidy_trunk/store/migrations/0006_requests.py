"""Changes that arrive once, however often they are sent: each carries the id that its sender gave it."""

UP = (
    "alter table revision add column request uuid",
    "create unique index revision_of_request on revision (job_id, request) where request is not null",
)

DOWN = ("drop index revision_of_request", "alter table revision drop column request")


def up(migrator, db):  # type: ignore[no-untyped-def]
    for statement in UP:
        db.execute_sql(statement)


def down(migrator, db):  # type: ignore[no-untyped-def]
    for statement in DOWN:
        db.execute_sql(statement)
