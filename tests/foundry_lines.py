"""The demo job's patch as somebody would type it, from an empty job."""

from tidy_trunk.core.plan import Plan

LINES = (
    "set job rate 25, target film, tone -20, mains 50, place works, room 48, rumble 62",
    "add boom shotgun as Boom",
    "add lavalier as Founder lav, Presenter lav",
    "add dynamic handheld as Bell mic",
    "add battery condenser as Hall mic",
    "add body-pack transmitter as Pack A, Pack B",
    "add receiver, one as Receiver A, Receiver B",
    "add bag recorder as Bag recorder",
    "add pocket recorder as Pocket recorder",
    "add cinema camera as Camera A",
    "add mirrorless camera, microphone as Camera B",
    "add live switcher as Switcher",
    "master founder at boom, 0.6 m, 66 dB",
    "master founder at founder lav, 0.2 m",
    "presenter at presenter lav, 0.2 m, 62 dB",
    "Bell, first strike at bell mic, 1.5 m, 104 dB unweighted",
    "Visitors' hall at hall mic, 1.5 m, 76 dB",
    "boom to bag 1, 10 m",
    "founder lav to pack a",
    "pack a to receiver a",
    "receiver a to bag 2, 0.5 m",
    "presenter lav to pack b",
    "pack b to receiver b",
    "receiver b to bag 3, 0.5 m",
    "bell mic to bag 4, 25 m",
    "bag out l to camera a, 8.5 m",
    "bag out r to camera a, 8.5 m",
    "bag line to camera b, 3 m, by 3.5 mm trs",
    "hall mic to pocket, 5.3 m, by straight",
    "camera b to switcher hdmi 1, 5 m",
    "route bag 1 and 4 to mix l",
    "route bag 2 and 3 to mix r",
    "route switcher hdmi 1 l to l",
    "route switcher hdmi 1 r to r",
    "path cable 1: 6 m past walkway",
    "path cable 9: 5 m past walkway",
    "path cable 11: 0.9 m past dimmer at 0.5 m",
    "set bell once on",
)

CLOCK_LINES = (
    "set job day 8:00 to 17:30",
    "break Tea at 10:15, 15 min",
    "break Dinner at 12:30, 45 min",
    "break Second tea at 15:00, 15 min",
    "set-up 1A at 9:00, 3 takes of 4 min",
    "set-up 1B at 9:40, 2 takes of 4 min",
    "set-up 2A at 11:00, 25 min",
    "set-up 2B at 11:45, 3 takes of 2 min",
    "set-up 3A at 13:50, 4 takes of 3 min",
    "set-up 4A at 15:40, 1 take of 45 min",
    "add timecode generator as Box A",
    "box a to camera a, 0.5 m",
    "jam box a from bag recorder at 8:00 and 12:30",
)


def patch_of(plan: Plan):
    """What is plugged into what, by which leads, and where it is routed: by labels, for ids depend on the typing."""
    names = {device.id: device.label for device in plan.devices.values()}
    return {
        "devices": sorted((device.label, device.class_id) for device in plan.devices.values()),
        "runs": [
            (run.number, names[run.sending.device], run.sending.port, names[run.receiving.device], run.receiving.port,
             [(part.lead, part.length_m, part.branch) for part in run.parts])
            for run in plan.runs.values()
        ],
        "routing": sorted((device.label, bus, inputs) for device in plan.devices.values() for bus, inputs in device.routing.items()),
        "day": (plan.defaults.day_begins_min, plan.defaults.day_ends_min, tuple(plan.breaks.values()), tuple(plan.set_ups.values())),
        "jams": [(device.label, names[device.jam.giver], device.jam.at_min) for device in plan.devices.values() if device.jam],
        "heard": sorted((source.label, names[mic], metres) for source in plan.sources.values() for mic, metres in source.heard_by.items()),
    }  # fmt: skip
