"""The built-in plain classes, by what they are for. Figures: handbook §12, typical and from memory unless said."""

from tidy_trunk.core.gear.catalogue.classes.cameras import CAMERAS
from tidy_trunk.core.gear.catalogue.classes.live import LIVE
from tidy_trunk.core.gear.catalogue.classes.microphones import MICROPHONES
from tidy_trunk.core.gear.catalogue.classes.mixers import MIXERS
from tidy_trunk.core.gear.catalogue.classes.radio import RADIO
from tidy_trunk.core.gear.catalogue.classes.recorders import RECORDERS

__all__ = ["CAMERAS", "LIVE", "MICROPHONES", "MIXERS", "RADIO", "RECORDERS"]
