"""PostgreSQL: jobs and revisions of their plans, and what was found in recordings. Rows never leave."""

from tidy_trunk.store.cluster import PrivateCluster
from tidy_trunk.store.database import Database
from tidy_trunk.store.drills import DrillRecord, DrillStore
from tidy_trunk.store.dumps import dump, load
from tidy_trunk.store.ear import EarRecord, EarStore
from tidy_trunk.store.equipment import EquipmentRecord, EquipmentStore
from tidy_trunk.store.guest_keys import Access, GuestKeyRecord, GuestKeyStore
from tidy_trunk.store.jobs import HistoryRecord, JobRecord, JobStore, RevisionRecord
from tidy_trunk.store.lined_up_pairs import LinedUpPairRecord, LinedUpPairStore
from tidy_trunk.store.log import LogStore
from tidy_trunk.store.media import MediaStore
from tidy_trunk.store.migrate import is_behind, is_current, migrate
from tidy_trunk.store.news import ChangedPart, News, listen
from tidy_trunk.store.queue_state import QueueState, queue_state
from tidy_trunk.store.recordings import RecordingRecord, RecordingState, RecordingStore
from tidy_trunk.store.trunk import ClaimRecord, PackingState, TickRecord, TrunkStore
from tidy_trunk.store.uploads import UploadRecord, UploadStore
from tidy_trunk.store.walks import MarkRecord, WalkMark, WalkRecord, WalkStore

__all__ = [
    "Access",
    "ChangedPart",
    "ClaimRecord",
    "Database",
    "DrillRecord",
    "DrillStore",
    "EarRecord",
    "EarStore",
    "EquipmentRecord",
    "EquipmentStore",
    "GuestKeyRecord",
    "GuestKeyStore",
    "HistoryRecord",
    "JobRecord",
    "JobStore",
    "LinedUpPairRecord",
    "LinedUpPairStore",
    "LogStore",
    "MarkRecord",
    "MediaStore",
    "News",
    "PackingState",
    "PrivateCluster",
    "QueueState",
    "RecordingRecord",
    "RecordingState",
    "RecordingStore",
    "RevisionRecord",
    "TickRecord",
    "TrunkStore",
    "UploadRecord",
    "UploadStore",
    "WalkMark",
    "WalkRecord",
    "WalkStore",
    "dump",
    "is_behind",
    "is_current",
    "listen",
    "load",
    "migrate",
    "queue_state",
]
