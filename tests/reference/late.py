"""How late pictures and sound are, a second time: from the plan document, the classes, and their sums."""

from tests.reference.sound import Model, channel_of
from tidy_trunk.core.gear.catalogue import Circuit, DeviceKind

PICTURES = (Circuit.HDMI, Circuit.SDI)
SOUND_M_PER_S = 343.0
CONVERTED_MS = 1.0


class Late(Model):
    """Pictures in frames, sound in ms."""

    def frame_ms(self) -> float:
        rate = self.plan["defaults"]["frame_rate"].removesuffix("df")
        exact = {"23.976": 24_000 / 1_001, "29.97": 30_000 / 1_001, "47.952": 48_000 / 1_001, "59.94": 60_000 / 1_001}
        return 1000 / exact.get(rate, float(rate))

    def own_frames(self, device: str, circuit: Circuit) -> float | None:
        traits = self.classes[device].traits
        over_sdi = circuit is Circuit.SDI and traits.sdi_delay_frames is not None
        figure = traits.sdi_delay_frames if over_sdi else traits.picture_delay_frames
        return None if figure is None else figure.value

    def pictures(self, device: str) -> dict[tuple[str, bool], float]:
        """By sender and whether over SDI with a delay of its own, how late its picture is where it comes into a device: its
        own delay after all that it waits for."""
        found = {}
        for run in self.plan["runs"]:
            if run["receiving"]["device"] != device or self.receiving(run).circuit not in PICTURES:
                continue
            sender = run["sending"]["device"]
            circuit = self.port(sender, run["sending"]["port"]).circuit
            own, before = self.own_frames(sender, circuit), self.pictures(sender)
            over_sdi = circuit is Circuit.SDI and self.classes[sender].traits.sdi_delay_frames is not None
            if own is not None or before:
                found[sender, over_sdi] = (own or 0.0) + max(before.values(), default=0.0)
        return found

    def sound_into(self, device: str, port: str, channel: int) -> list[float]:
        """Delays, in ms, of every path by which sound comes to a channel of an input."""
        if self.hears_itself(device, self.port(device, port)):
            own = next(out for out in self.classes[device].outputs if out.plug.connector == "inside")
            return self.sound_out(device, own.id, channel)
        found = []
        for run in () if self.is_off(device, port) else self.runs("receiving", device, port):
            sender, sent = run["sending"]["device"], run["sending"]["port"]
            if run["id"] not in self.ratios(sender, sent):
                continue
            for at in self.ratios(sender, sent)[run["id"]][channel]:
                found += self.sound_out(sender, sent, at)
        return found

    def sound_out(self, device: str, port_id: str, channel: int) -> list[float]:
        device_class, port = self.classes[device], self.port(device, port_id)
        if self.is_capsule(device, port):
            metres = [source["heard_by"][device] for source in self.plan["sources"] if device in source["heard_by"]]
            return [metre / SOUND_M_PER_S * 1000 for metre in metres]
        ref = port.id if len(port.channels) == 1 else f"{port.id}.{port.channels[channel]}"
        in_mode = self.mode(device, port).feeds
        bus_id = self.devices[device]["feeds"].get(ref, in_mode.get(ref, device_class.feeds.get(ref)))
        if bus_id is None or port.circuit is Circuit.TIMECODE:
            return []
        bus = next(bus for bus in device_class.buses if bus.id == bus_id)
        arriving, with_picture = [], port.circuit in PICTURES
        for name in self.devices[device]["routing"].get(bus_id, bus.inputs):
            taken, at = channel_of(device_class, name)
            if self.pan(device, taken, bus_id) is None:
                continue
            came = self.sound_into(device, taken.id, at)
            with_picture |= bool(came) and taken.circuit in PICTURES
            arriving += came
        return [ms + self.own_ms(device, port.circuit, with_picture) for ms in arriving]

    def own_ms(self, device: str, circuit: Circuit, with_picture: bool) -> float:
        traits, frames = self.classes[device].traits, self.own_frames(device, circuit)
        if with_picture and frames is not None:
            return frames * self.frame_ms()
        if traits.sound_delay_ms is not None:
            return traits.sound_delay_ms.value
        return CONVERTED_MS if traits.sample_rates_hz else 0.0

    def screens(self) -> list[str]:
        return [
            name
            for name, device_class in self.classes.items()
            if device_class.kind in (DeviceKind.SWITCHER, DeviceKind.MONITOR) and self.pictures(name)
        ]
