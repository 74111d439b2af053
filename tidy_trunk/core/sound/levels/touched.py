"""How far an edit reaches: which devices may hold another level than before.

A plan that is tried shares every stage that its edits do not touch with the plan that it was made from, so that a trial
costs what is downstream of them.
"""

from typing import Final

from tidy_trunk.core.gear.catalogue import controls_of
from tidy_trunk.core.plan import PlanIndex, PortRef, changed_keys

_ALL_DEPENDS: Final = ("defaults", "classes", "leads", "targets", "line_ups", "gain_laws")


def touched_devices(before: PlanIndex, after: PlanIndex) -> frozenset[str] | None:
    """Devices of which any stage may be otherwise than before, beside all that hangs on their stages; None for all.

    A microphone is touched where an input that may power it is; an input also where another on the same output is, since
    they load it together.
    """
    was, now = before.plan, after.plan
    if any(getattr(was, name) is not getattr(now, name) for name in _ALL_DEPENDS):
        return None
    found = set(changed_keys(was.devices, now.devices))
    runs = [*was.runs.values(), *now.runs.values()]
    for key in changed_keys(was.runs, now.runs):
        found |= {run.receiving.device for run in (was.runs.get(key), now.runs.get(key)) if run is not None}
    for key in changed_keys(was.sources, now.sources):
        for source in (was.sources.get(key), now.sources.get(key)):
            found |= set(source.heard_by) if source is not None else set()
    senders = {run.sending for run in runs if run.receiving.device in found}
    found |= {ref.device for ref in senders if _is_fed(before, after, ref)}
    found |= {run.receiving.device for run in runs if run.sending in senders}
    # What an output carries may begin only now: who hears it is touched, whoever heard it before.
    found |= {run.receiving.device for run in runs if run.sending.device in found}
    return frozenset(found)


def moved_ports(before: PlanIndex, after: PlanIndex) -> set[tuple[str, str]]:
    """Device and port of every control that stands otherwise, those of linked inputs too; "" as port of a microphone itself."""
    found: set[tuple[str, str]] = set()
    for device_id in changed_keys(before.plan.devices, after.plan.devices):
        placed = after.placed(device_id)
        was, now = before.plan.devices[device_id].settings, placed.device.settings
        controls = controls_of(placed.device_class)
        for name in {*was, *now}:
            if was.get(name) != now.get(name) and name in controls:
                found.add((device_id, controls[name].port))
        ports = {port for device, port in found if device == device_id}
        for port in placed.device_class.inputs:
            if port.id in ports:
                found |= {(device_id, other) for other in port.linked_to}
        if placed.device_class.feeding is not None:
            found |= {(device_id, port.id) for port in placed.device_class.outputs}
    return found


def _is_fed(before: PlanIndex, after: PlanIndex, ref: PortRef) -> bool:
    index = after if ref.device in after.plan.devices else before
    return index.placed(ref.device).device_class.feeding is not None
