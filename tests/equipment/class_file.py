"""A file of a class, as somebody would write it."""

PREAMP = """
id = "preamp"
label = "Preamp"
kind = "preamp-box"

[[inputs]]
id = "in#"
label = "in #"
repeat = 2
plug = {connector = "xlr3", gender = "female"}
circuit = "balanced"
phantom_places = ["switch"]

[[inputs.modes]]
id = "mic"
label = "mic"
signal = "mic"
impedance_ohm = 3000
full_scale_dbu = -10
gain = {minimum_db = 0, maximum_db = 40, step_db = 1, default_db = 20}
supplies = ["p48"]

[[outputs]]
id = "out"
label = "out"
plug = {connector = "trs35", gender = "male"}
circuit = "unbalanced-stereo"
channels = ["L", "R"]

[[outputs.modes]]
id = "mic"
label = "mic"
signal = "mic"
full_scale_dbu = -10

[[buses]]
id = "L"
label = "L"
recorded = false
inputs = ["in1"]

[[buses]]
id = "R"
label = "R"
recorded = false
inputs = ["in2"]

[feeds]
"out.L" = "L"
"out.R" = "R"
"""
