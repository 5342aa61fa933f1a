-- Whose file this is, in its header ("Tabr"): another program's database is never taken over.

PRAGMA application_id = 0x54616272;
