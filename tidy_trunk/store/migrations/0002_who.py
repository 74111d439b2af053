"""Who made a revision."""

UP = "alter table revision add column who text not null default ''"
DOWN = "alter table revision drop column who"


def up(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(UP)


def down(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(DOWN)
