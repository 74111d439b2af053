"""Levels at every stage, noise with its contributors, clip points, tolerance."""

from tidy_trunk.core.sound.levels.budget import NoiseShare, Uncertainty, doubts, noise_budget
from tidy_trunk.core.sound.levels.datasheet import Datasheet, level_dbu, mode_of_datasheet
from tidy_trunk.core.sound.levels.gear import input_ceiling_dbu, input_stage_dbu
from tidy_trunk.core.sound.levels.heard import HEARD_WITHIN_DB, HeardSource, heard_at
from tidy_trunk.core.sound.levels.line_up import (
    SENDERS,
    LineUpStanding,
    can_send,
    known_sender,
    runs_between,
    sender_of,
    way_between,
    way_of_classes,
)
from tidy_trunk.core.sound.levels.passage import Passage, Step
from tidy_trunk.core.sound.levels.report import Report, Rung, TrackLevel
from tidy_trunk.core.sound.levels.safety import SAFETY_FROM_DB, SAFETY_TO_DB, Safety, is_safety, safeties
from tidy_trunk.core.sound.levels.sound import Clipping, Noise, SignalLevels, mixed, weaker
from tidy_trunk.core.sound.levels.spectra import SPEECH_DB, SpectrumShape, a_change_db, cut_change_db, low_cut_db
from tidy_trunk.core.sound.levels.stage_solver import NO_OSCILLATORS, NO_STEPS, RUMBLE, StageLevel, StageSolver
from tidy_trunk.core.sound.levels.stages import (
    LevelSolver,
    full_scale_at_input_dbu,
    run_loss_db,
)
from tidy_trunk.core.sound.levels.touched import touched_devices

__all__ = [
    "HEARD_WITHIN_DB",
    "NO_OSCILLATORS",
    "NO_STEPS",
    "RUMBLE",
    "SAFETY_FROM_DB",
    "SAFETY_TO_DB",
    "SENDERS",
    "SPEECH_DB",
    "Clipping",
    "Datasheet",
    "HeardSource",
    "LevelSolver",
    "LineUpStanding",
    "Noise",
    "NoiseShare",
    "Passage",
    "Report",
    "Rung",
    "Safety",
    "SignalLevels",
    "SpectrumShape",
    "StageLevel",
    "StageSolver",
    "Step",
    "TrackLevel",
    "Uncertainty",
    "a_change_db",
    "can_send",
    "cut_change_db",
    "doubts",
    "full_scale_at_input_dbu",
    "heard_at",
    "input_ceiling_dbu",
    "input_stage_dbu",
    "is_safety",
    "known_sender",
    "level_dbu",
    "low_cut_db",
    "mixed",
    "mode_of_datasheet",
    "noise_budget",
    "run_loss_db",
    "runs_between",
    "safeties",
    "sender_of",
    "touched_devices",
    "way_between",
    "way_of_classes",
    "weaker",
]
