"""What all ways of a sound hang on: the parts whose failure takes it away."""

from tidy_trunk.core.sound.trace.graph import Stage, StageKey, StageKind

PlanPart = tuple[str, str]
"""What can fail: ("device", its id) or ("run", its id). [HANDBOOK] §8"""

KnownParts = dict[StageKey, frozenset[PlanPart]]
"""Parts of stages that were asked for already, for one source."""


def parts_on_all_ways(stage: Stage, source: str, known: KnownParts) -> frozenset[PlanPart]:
    """The parts that lie on every way from a source to a stage, the stage's own device among them.

    Args:
        stage: A stage that the source reaches.
        source: Its id.
        known: Filled as the stages are walked; to be used for one source only.
    """
    done = known.get(stage.key)
    if done is None:
        ways = [parts_on_all_ways(feed, source, known) for feed, _ in stage.feeds if source in feed.sources]
        own: frozenset[PlanPart] = frozenset()
        if stage.kind is StageKind.LEAD:
            own = frozenset({("run", stage.name)})
        elif stage.kind is not StageKind.SOUND:
            own = frozenset({("device", stage.device)})
        done = own | (frozenset.intersection(*ways) if ways else frozenset())
        known[stage.key] = done
    return done
