"""PostgreSQL: jobs and revisions of their plans. Rows never leave."""

from tidy_trunk.store.cluster import PrivateCluster
from tidy_trunk.store.database import Database
from tidy_trunk.store.jobs import HistoryRecord, JobRecord, JobStore, RevisionRecord
from tidy_trunk.store.migrate import migrate

__all__ = ["Database", "HistoryRecord", "JobRecord", "JobStore", "PrivateCluster", "RevisionRecord", "migrate"]
