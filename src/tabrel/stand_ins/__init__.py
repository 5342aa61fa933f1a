"""Small simulated stand-ins for devices and services outside; they import nothing of what works their data out.

`counter`   a particle counter on a filter test stand: `simulated_counts`, `write_csv`
`typical`   invented filters from a table of what is usual: `invented_truth`
`workshop`  such a filter measured by hand, with the errors of instruments and slips on purpose: `measured_document`
"""
