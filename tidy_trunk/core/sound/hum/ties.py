"""What ties the devices of a plan together: their power, and the screens of their leads."""

from tidy_trunk.core.gear.catalogue import DeviceKind, Power
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.core.sound.cable_chains import unbalanced_length_m
from tidy_trunk.core.sound.hum.loops import COMPUTER, EARTH, Tie
from tidy_trunk.core.sound.trace import run_link


def ties(index: PlanIndex) -> list[Tie]:
    """Every tie of a plan. A charger that is no computer, and a battery, tie a device to nothing. Source: [HANDBOOK] §9"""
    found = []
    powers = {placed.device.id: placed.power for placed in index.placed_devices()}
    found += [
        Tie(device, EARTH, insulated=power is Power.ADAPTER)
        for device, power in powers.items()
        if power in (Power.MAINS, Power.ADAPTER)
    ]
    on_usb = [Tie(device, COMPUTER) for device, power in powers.items() if power is Power.COMPUTER]
    if on_usb:
        found += [*on_usb, Tie(COMPUTER, EARTH)]
    for run in index.plan.runs.values():
        sender, receiver = index.placed(run.sending.device), index.placed(run.receiving.device)
        if sender.device_class.is_microphone or receiver.device_class.kind is DeviceKind.HEADPHONES:
            continue
        if run_link(index, run).copper:
            output = sender.output(run.sending.port)
            unbalanced = unbalanced_length_m(output, index.leads_of(run)) > 0
            found.append(Tie(run.sending.device, run.receiving.device, run.id, unbalanced))
    return found
