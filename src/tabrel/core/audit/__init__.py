"""Audit of printed sums: results recomputed with the range that their rounded inputs allow.

`printed`      a number as printed, and between what it lies: `printed_number`
`arithmetic`   one line recomputed, and the slips that would explain it: `check_line`
`written`      lines as somebody writes or pastes them: `read_lines`
"""
