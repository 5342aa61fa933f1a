"""The oil circuit of the engine with a filter in it, at one oil temperature and engine speed or many.

`filter_model`      one filter as a hydraulic network, from a measured sample
`filter_flow`       its state and derivative at one unknown
`dirt_loading`      how dirt loads a filter: by its counted test, else by the usual law
`filter_losses`     which part of it takes how much of its loss
`filter_alone`      the filter without an engine, over temperature and flow
`engine_circuit`    pump, regulator, cooler, bearings and jets
`calibration`       how they come from what is stated of the engine
`state`             the whole circuit at one unknown
`solution`          the circuit solved, and what the solution tells
`operating_point`   a study's circuit with one filter, as it is or in a scenario
`hot_point`         the check at the hot gallery pressure
`engine_library`    invented engines to begin with
"""
