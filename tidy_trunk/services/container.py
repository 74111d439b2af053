"""The services of one running application."""

from dataclasses import dataclass
from pathlib import Path

from tidy_trunk.media.sounds import Media
from tidy_trunk.services.clock import ClockService
from tidy_trunk.services.compare import CompareService
from tidy_trunk.services.day_files import DayFileService
from tidy_trunk.services.day_package import DayPackageService
from tidy_trunk.services.drills import DrillService
from tidy_trunk.services.ear import EarService
from tidy_trunk.services.equipment import EquipmentService, own_equipment, plan_of_own
from tidy_trunk.services.fault_search import FaultSearchService
from tidy_trunk.services.front_door import FrontDoorService
from tidy_trunk.services.gain_plans import GainPlanService
from tidy_trunk.services.gear_tests import GearTestService
from tidy_trunk.services.guests import GuestService
from tidy_trunk.services.jobs import JobService
from tidy_trunk.services.line_up import LineUpService
from tidy_trunk.services.lined_up_pairs import LinedUpPairService
from tidy_trunk.services.log import LogService
from tidy_trunk.services.news import NewsService
from tidy_trunk.services.papers import PaperService
from tidy_trunk.services.recordings import RecordingService
from tidy_trunk.services.scene_notes import SceneNoteService
from tidy_trunk.services.shooting_day import DayService
from tidy_trunk.services.simulation import SimulationService
from tidy_trunk.services.simulation_recordings import SimulationRecordingService
from tidy_trunk.services.sync_files import SyncService
from tidy_trunk.services.trunk import TrunkService
from tidy_trunk.services.walks import WalkService
from tidy_trunk.settings import AT_ONCE
from tidy_trunk.store import (
    Database,
    DrillStore,
    EarStore,
    EquipmentStore,
    GuestKeyStore,
    JobStore,
    LinedUpPairStore,
    LogStore,
    MediaStore,
    RecordingStore,
    TrunkStore,
    UploadStore,
    WalkStore,
)
from tidy_trunk.tasks.queue import TaskQueue
from tidy_trunk.tasks.worker import Worker
from tidy_trunk.upkeep.copies import CopyService


@dataclass(frozen=True, slots=True)
class Services:
    """What the application does for a user. `start` has its worker begin; `close` ends what is still under way."""

    media: Media
    jobs: JobService
    recordings: RecordingService
    line_up: LineUpService
    simulation: SimulationService
    simulation_recordings: SimulationRecordingService
    compare: CompareService
    clock: ClockService
    sync: SyncService
    walks: WalkService
    log: LogService
    scene_notes: SceneNoteService
    day: DayService
    day_files: DayFileService
    day_package: DayPackageService
    equipment: EquipmentService
    fault_search: FaultSearchService
    front_door: FrontDoorService
    gear_tests: GearTestService
    gain_plans: GainPlanService
    papers: PaperService
    trunk: TrunkService
    drills: DrillService
    ear: EarService
    pairs: LinedUpPairService
    news: NewsService
    copies: CopyService
    guests: GuestService
    worker: Worker

    def start(self) -> None:
        """Work on what waits; else that begins with the first that is put in here."""
        self.worker.start()

    def close(self) -> list[str]:
        """Names of the recordings that are cut short: the next start, or another worker, begins them anew."""
        self.news.close()
        return self.worker.stop()


def services_on(database: Database, home: Path, folder: Path, at_once: int = AT_ONCE) -> Services:
    """All services on one database.

    Args:
        home: The data folder.
        folder: For the files of recordings; workers on other machines share it.
        at_once: Recordings that this process has read at once; 0 leaves them to others.
    """
    media = Media(folder, MediaStore(database))
    equipment = EquipmentStore(database)
    pairs = LinedUpPairService(LinedUpPairStore(database))
    jobs = JobService(JobStore(database), media, own=lambda: own_equipment(equipment), lined_up=pairs.remember)
    worker = Worker(database, media, at_once)
    queue = TaskQueue(database, begin=worker.start)
    recordings = RecordingService(RecordingStore(database), UploadStore(database), media, queue)
    papers = PaperService(jobs)
    trunk = TrunkService(jobs, TrunkStore(database), own=lambda: plan_of_own(equipment))
    log = LogService(jobs, LogStore(database))
    day = DayService(log)
    day_files = DayFileService(jobs, log, recordings)
    return Services(
        media=media,
        jobs=jobs,
        recordings=recordings,
        line_up=LineUpService(jobs, recordings, pairs.store),
        simulation=SimulationService(jobs),
        simulation_recordings=SimulationRecordingService(jobs, recordings),
        compare=CompareService(jobs, recordings),
        clock=ClockService(jobs),
        sync=SyncService(jobs, recordings),
        walks=WalkService(jobs, WalkStore(database)),
        log=log,
        scene_notes=SceneNoteService(jobs, log),
        day=day,
        day_files=day_files,
        day_package=DayPackageService(jobs, log, day, day_files, papers),
        equipment=EquipmentService(jobs, equipment),
        fault_search=FaultSearchService(jobs),
        front_door=FrontDoorService(jobs, own=lambda: own_equipment(equipment), trunk=trunk),
        gear_tests=GearTestService(jobs, recordings),
        gain_plans=GainPlanService(jobs, recordings),
        papers=papers,
        trunk=trunk,
        drills=DrillService(jobs, DrillStore(database)),
        ear=EarService(EarStore(database)),
        pairs=pairs,
        news=NewsService(database),
        copies=CopyService(home, database, folder),
        guests=GuestService(GuestKeyStore(database)),
        worker=worker,
    )
