"""Behaviour in time: a start followed from filling to warm oil, and how long a filter lasts.

`duty_cycle`        speed over time, shipped or read from CSV
`together`          courses whose circuits are solved at once
`warm_up`           a start followed step by step
`life`              hours until the bypass valve opens, and how fast the sump is cleaned
"""
