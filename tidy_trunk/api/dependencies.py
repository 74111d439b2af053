"""What routers ask for."""

import re
from typing import Annotated
from uuid import UUID, uuid4

from fastapi import Depends, Header, Path, Query, Request

from tidy_trunk.errors import InputError
from tidy_trunk.media.uploads import UploadChunk
from tidy_trunk.services.clock import ClockService
from tidy_trunk.services.compare import CompareService
from tidy_trunk.services.container import Services
from tidy_trunk.services.day_files import DayFileService
from tidy_trunk.services.day_package import DayPackageService
from tidy_trunk.services.drills import DrillService
from tidy_trunk.services.ear import EarService
from tidy_trunk.services.equipment import EquipmentService
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
from tidy_trunk.upkeep.copies import CopyService


def _services(request: Request) -> Services:
    services: Services = request.app.state.services
    return services


def _jobs(request: Request) -> JobService:
    return _services(request).jobs


def _recordings(request: Request) -> RecordingService:
    return _services(request).recordings


def _line_up(request: Request) -> LineUpService:
    return _services(request).line_up


def _simulation(request: Request) -> SimulationService:
    return _services(request).simulation


def _simulation_recordings(request: Request) -> SimulationRecordingService:
    return _services(request).simulation_recordings


def _compare(request: Request) -> CompareService:
    return _services(request).compare


def _clock(request: Request) -> ClockService:
    return _services(request).clock


def _sync(request: Request) -> SyncService:
    return _services(request).sync


def _gain_plans(request: Request) -> GainPlanService:
    return _services(request).gain_plans


def _guests(request: Request) -> GuestService:
    return _services(request).guests


def _copies(request: Request) -> CopyService:
    return _services(request).copies


def _news(request: Request) -> NewsService:
    return _services(request).news


def _log(request: Request) -> LogService:
    return _services(request).log


def _scene_notes(request: Request) -> SceneNoteService:
    return _services(request).scene_notes


def _day_files(request: Request) -> DayFileService:
    return _services(request).day_files


def _day(request: Request) -> DayService:
    return _services(request).day


def _walks(request: Request) -> WalkService:
    return _services(request).walks


def _equipment(request: Request) -> EquipmentService:
    return _services(request).equipment


def _fault_search(request: Request) -> FaultSearchService:
    return _services(request).fault_search


def _front_door(request: Request) -> FrontDoorService:
    return _services(request).front_door


def _gear_tests(request: Request) -> GearTestService:
    return _services(request).gear_tests


def _day_package(request: Request) -> DayPackageService:
    return _services(request).day_package


def _drills(request: Request) -> DrillService:
    return _services(request).drills


def _ear(request: Request) -> EarService:
    return _services(request).ear


def _trunk(request: Request) -> TrunkService:
    return _services(request).trunk


def _papers(request: Request) -> PaperService:
    return _services(request).papers


def _pairs(request: Request) -> LinedUpPairService:
    return _services(request).pairs


def _own_id(
    id: Annotated[UUID | None, Query(description="Id that its sender gives it: sent again, it is the same one")] = None,
) -> UUID:
    return id or uuid4()


RANGE = re.compile(r"bytes (\d{1,15})-(\d{1,15})/(\d{1,15})", re.ASCII)
"""Which bytes of the whole a body holds. [RFC9110]"""


def _piece(
    request: Request,
    content_range: Annotated[
        str | None, Header(description="Which bytes these are, where the recording comes in pieces: bytes 0-99/200")
    ] = None,
) -> UploadChunk:
    size = int(request.headers["content-length"])  # the guard lets nothing in that does not say it
    if content_range is None:
        return UploadChunk(0, size, size)
    told = RANGE.fullmatch(content_range)
    if told is None or int(told[2]) - int(told[1]) + 1 != size:
        raise InputError(f"Content-Range: '{content_range[:60]}' does not say which {size} bytes these are")
    return UploadChunk(int(told[1]), size, int(told[3]))


OwnId = Annotated[UUID, Depends(_own_id)]
PieceOf = Annotated[UploadChunk, Depends(_piece)]
Clock = Annotated[ClockService, Depends(_clock)]
Compare = Annotated[CompareService, Depends(_compare)]
SimulationRecordings = Annotated[SimulationRecordingService, Depends(_simulation_recordings)]
Sync = Annotated[SyncService, Depends(_sync)]
GainPlans = Annotated[GainPlanService, Depends(_gain_plans)]
Guests = Annotated[GuestService, Depends(_guests)]
Copies = Annotated[CopyService, Depends(_copies)]
LiveNews = Annotated[NewsService, Depends(_news)]
DayFiles = Annotated[DayFileService, Depends(_day_files)]
LogOfDay = Annotated[LogService, Depends(_log)]
SceneNotes = Annotated[SceneNoteService, Depends(_scene_notes)]
Day = Annotated[DayService, Depends(_day)]
DayPackage = Annotated[DayPackageService, Depends(_day_package)]
Drills = Annotated[DrillService, Depends(_drills)]
Ear = Annotated[EarService, Depends(_ear)]
Trunk = Annotated[TrunkService, Depends(_trunk)]
Papers = Annotated[PaperService, Depends(_papers)]
Walks = Annotated[WalkService, Depends(_walks)]
Equipment = Annotated[EquipmentService, Depends(_equipment)]
FaultSearch = Annotated[FaultSearchService, Depends(_fault_search)]
FrontDoor = Annotated[FrontDoorService, Depends(_front_door)]
GearTests = Annotated[GearTestService, Depends(_gear_tests)]
LinedUpPairs = Annotated[LinedUpPairService, Depends(_pairs)]
Simulation = Annotated[SimulationService, Depends(_simulation)]
Jobs = Annotated[JobService, Depends(_jobs)]
Recordings = Annotated[RecordingService, Depends(_recordings)]
LineUps = Annotated[LineUpService, Depends(_line_up)]
ItemId = Annotated[str, Path(min_length=1, max_length=120)]
"""ASSUMED_ longest id of a run, device or track in an address."""
