"""Open documents in, answers out: ``dolmetsch-batch/1`` and ``dolmetsch-cure/1``.

``strict`` reads JSON without mercy, ``node`` walks it with its path in mind, ``batch_reading`` and
``cure_reading`` make records of it, ``sheet_writing`` and ``cure_writing`` print what the core answers,
``answers`` puts reading and writing together for the command line and the web alike.
"""
