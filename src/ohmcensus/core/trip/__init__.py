"""Which part leaks: proved bounds from runs with parts connected in groups, and which plug to pull next.

``polytope``   linear programmes of a few dozen rows
``problem``    parts, instrument and runs, as they are typed and as intervals
``rules_dc``   what runs of an insulation tester say, in µS
``rules_ac``   what runs of a leakage tester say, in mA: magnitudes do not add
``isolate``    bounds, verdicts, conflicts, what alone could explain it
``planner``    the next run that settles most a minute
``residual``   residual-current devices: what they must and must not do
``overcurrent`` breakers and fuses
"""
