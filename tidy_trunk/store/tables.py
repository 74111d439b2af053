"""Tables, named for what a row is. The migrations declare them on their own; these are for queries."""

from typing import Any

import peewee


class Tables:
    """The tables bound to one pool: nothing global, so that two databases in one process do not meet."""

    def __init__(self, pool: Any) -> None:
        class Job(pool.Model):
            """A job; `head` is the number of its newest revision."""

            id = peewee.UUIDField(primary_key=True)
            name = peewee.TextField()
            head = peewee.IntegerField()
            created = peewee.DateTimeField()

            class Meta:
                table_name = "job"

        class Revision(pool.Model):
            """One state in the history of a job; rows are only added.

            content: number of the revision whose document this state shows; its own for an edit, an older one for an
                undo.
            who: name of the one who made it, as far as he said it.
            before: content from which an edit was made: where undo goes. Null for the first.
            redo: contents that redo goes to, the next one last.
            document: the plan; null where `content` is another revision. request: the id that its sender gave it, if any.
            """

            job = peewee.ForeignKeyField(Job, column_name="job_id", backref="revisions")
            number = peewee.IntegerField()
            sentence = peewee.TextField()
            who = peewee.TextField(default="")
            content = peewee.IntegerField()
            before = peewee.IntegerField(null=True)
            redo = peewee.JSONField()
            document = peewee.JSONField(null=True)
            request = peewee.UUIDField(null=True)
            created = peewee.DateTimeField()

            class Meta:
                table_name = "revision"
                primary_key = peewee.CompositeKey("job", "number")

        class Recording(pool.Model):
            """A recording that is being measured, or has been.

            asked: what it was dropped for, as the caller keeps it; result: what was found, null until it is done; task: its
            number in the queue.
            """

            id = peewee.UUIDField(primary_key=True)
            job = peewee.ForeignKeyField(Job, column_name="job_id")
            name = peewee.TextField()
            size = peewee.BigIntegerField()
            asked = peewee.JSONField()
            state = peewee.TextField()
            progress = peewee.DoubleField(default=0.0)
            message = peewee.TextField(default="")
            result = peewee.JSONField(null=True)
            task = peewee.BigIntegerField(null=True)
            created = peewee.DateTimeField()

            class Meta:
                table_name = "recording"

        class Upload(pool.Model):
            """A recording of `total` bytes of which the first `received` are here."""

            id = peewee.UUIDField(primary_key=True)
            total = peewee.BigIntegerField()
            received = peewee.BigIntegerField(default=0)
            touched = peewee.DateTimeField()

            class Meta:
                table_name = "upload"

        class Walk(pool.Model):
            """A signal walk; `items` as they were when it began, made from the plan of `revision`."""

            id = peewee.UUIDField(primary_key=True)
            job = peewee.ForeignKeyField(Job, column_name="job_id")
            revision = peewee.IntegerField()
            items = peewee.JSONField()
            created = peewee.DateTimeField()

            class Meta:
                table_name = "walk"

        class WalkMark(pool.Model):
            """What was seen of one item, the last time that somebody said so."""

            walk = peewee.ForeignKeyField(Walk, column_name="walk_id")
            item = peewee.TextField()
            mark = peewee.TextField()
            who = peewee.TextField()
            made = peewee.DateTimeField()

            class Meta:
                table_name = "walk_mark"
                primary_key = peewee.CompositeKey("walk", "item")

        class LogEntry(pool.Model):
            """One tap in the log of the day; `seq` counts in the order in which they came."""

            id = peewee.UUIDField(primary_key=True)
            seq = peewee.BigIntegerField()
            job = peewee.ForeignKeyField(Job, column_name="job_id")
            act = peewee.TextField()
            take = peewee.TextField()
            who = peewee.TextField()
            made = peewee.DateTimeField()
            received = peewee.DateTimeField()
            body = peewee.JSONField()

            class Meta:
                table_name = "log_entry"

        class LogPhoto(pool.Model):
            """A photograph of the log, under the id of its entry."""

            id = peewee.UUIDField(primary_key=True)
            job = peewee.ForeignKeyField(Job, column_name="job_id")
            jpeg = peewee.BlobField()

            class Meta:
                table_name = "log_photo"

        class TrunkPiece(pool.Model):
            """A piece of the trunk; `seq` counts in the order in which they came."""

            id = peewee.UUIDField(primary_key=True)
            seq = peewee.BigIntegerField()
            body = peewee.JSONField()
            changed = peewee.DateTimeField()

            class Meta:
                table_name = "trunk_piece"

        class PiecePhoto(pool.Model):
            """A photograph of a piece."""

            piece = peewee.ForeignKeyField(TrunkPiece, column_name="piece_id", primary_key=True)
            jpeg = peewee.BlobField()

            class Meta:
                table_name = "piece_photo"

        class TrunkClaim(pool.Model):
            """A piece that a job uses on a day: one job at a time."""

            piece = peewee.ForeignKeyField(TrunkPiece, column_name="piece_id")
            day = peewee.TextField()
            job = peewee.ForeignKeyField(Job, column_name="job_id")
            need = peewee.TextField()

            class Meta:
                table_name = "trunk_claim"
                primary_key = peewee.CompositeKey("piece", "day")

        class PackingTick(pool.Model):
            """Where a line of a packing list is, as somebody ticked it last."""

            job = peewee.ForeignKeyField(Job, column_name="job_id")
            item = peewee.TextField()
            state = peewee.TextField()
            who = peewee.TextField()
            made = peewee.DateTimeField()

            class Meta:
                table_name = "packing_tick"
                primary_key = peewee.CompositeKey("job", "item")

        class Drill(pool.Model):
            """A drill; `seq` counts in the order in which they were begun."""

            id = peewee.UUIDField(primary_key=True)
            seq = peewee.BigIntegerField()
            seed = peewee.IntegerField()
            body = peewee.JSONField()
            begun = peewee.DateTimeField()
            ended = peewee.DateTimeField(null=True)

            class Meta:
                table_name = "drill"

        class EarSession(pool.Model):
            """Pairs of sounds that were listened to; `answers`: which of the two, 0 or 1, one after the other."""

            id = peewee.UUIDField(primary_key=True)
            seq = peewee.BigIntegerField()
            task = peewee.TextField()
            seed = peewee.IntegerField()
            who = peewee.TextField()
            answers = peewee.JSONField()
            threshold_db = peewee.DoubleField(null=True)
            begun = peewee.DateTimeField()

            class Meta:
                table_name = "ear_session"

        class Equipment(pool.Model):
            """A class of the user's own, as its file says it."""

            id = peewee.TextField(primary_key=True)
            body = peewee.JSONField()
            changed = peewee.DateTimeField()

            class Meta:
                table_name = "equipment"

        class GuestKey(pool.Model):
            """A guest; `link` and `digest` are what the secrets of its link and of its telephone are recognised by."""

            id = peewee.TextField(primary_key=True)
            name = peewee.TextField()
            access = peewee.TextField()
            link = peewee.TextField()
            digest = peewee.TextField(default="")
            created = peewee.DateTimeField()
            entered = peewee.DateTimeField(null=True)
            seen = peewee.DateTimeField(null=True)
            address = peewee.TextField(default="")

            class Meta:
                table_name = "guest_key"

        class LinedUpPair(pool.Model):
            """Two devices that were lined up, by what lies between them."""

            key = peewee.TextField(primary_key=True)
            body = peewee.JSONField()
            changed = peewee.DateTimeField()

            class Meta:
                table_name = "lined_up_pair"

        class DataIdentity(pool.Model):
            """The name of these data, in its only row."""

            id = peewee.UUIDField(primary_key=True)

            class Meta:
                table_name = "data_identity"

        class UnwantedMedia(pool.Model):
            """A recording that was deleted, until its files are gone; the database itself writes it down."""

            recording_id = peewee.UUIDField(primary_key=True)

            class Meta:
                table_name = "unwanted_media"

        self.Equipment: Any = Equipment
        self.GuestKey: Any = GuestKey
        self.LogEntry: Any = LogEntry
        self.LogPhoto: Any = LogPhoto
        self.TrunkPiece: Any = TrunkPiece
        self.PiecePhoto: Any = PiecePhoto
        self.TrunkClaim: Any = TrunkClaim
        self.PackingTick: Any = PackingTick
        self.Drill: Any = Drill
        self.EarSession: Any = EarSession
        self.LinedUpPair: Any = LinedUpPair
        self.DataIdentity: Any = DataIdentity
        self.UnwantedMedia: Any = UnwantedMedia
        self.Walk: Any = Walk
        self.WalkMark: Any = WalkMark
        self.Job: Any = Job
        self.Recording: Any = Recording
        self.Upload: Any = Upload
        self.Revision: Any = Revision
