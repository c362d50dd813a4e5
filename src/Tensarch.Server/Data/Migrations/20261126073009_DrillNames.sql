-- next
UPDATE Sets SET Drill = 'back-rolls' WHERE Drill = 'ball-rolls';
-- next
UPDATE Signals SET Drill = 'back-rolls' WHERE Drill = 'ball-rolls';
-- next
UPDATE ExitChecks SET Drill = 'back-rolls' WHERE Drill = 'ball-rolls';
-- next
UPDATE Sessions SET PlanJson = replace(PlanJson, '"ball-rolls', '"back-rolls') WHERE instr(PlanJson, '"ball-rolls') > 0;
-- next
UPDATE Sessions SET Worked = replace(Worked, '"ball-rolls', '"back-rolls') WHERE instr(Worked, '"ball-rolls') > 0;
-- next
UPDATE Decisions SET EvidenceJson = replace(EvidenceJson, '"ball-rolls', '"back-rolls') WHERE instr(EvidenceJson, '"ball-rolls') > 0;
-- next
UPDATE Corrections SET InsteadJson = replace(InsteadJson, '"ball-rolls', '"back-rolls') WHERE instr(InsteadJson, '"ball-rolls') > 0;
-- next
UPDATE OwnLadders SET Json = replace(Json, '"ball-rolls', '"back-rolls') WHERE instr(Json, '"ball-rolls') > 0;
-- next
UPDATE Sets SET Drill = 'crow-perch' WHERE Drill = 'crow-shelf';
-- next
UPDATE Signals SET Drill = 'crow-perch' WHERE Drill = 'crow-shelf';
-- next
UPDATE ExitChecks SET Drill = 'crow-perch' WHERE Drill = 'crow-shelf';
-- next
UPDATE Sessions SET PlanJson = replace(PlanJson, '"crow-shelf', '"crow-perch') WHERE instr(PlanJson, '"crow-shelf') > 0;
-- next
UPDATE Sessions SET Worked = replace(Worked, '"crow-shelf', '"crow-perch') WHERE instr(Worked, '"crow-shelf') > 0;
-- next
UPDATE Decisions SET EvidenceJson = replace(EvidenceJson, '"crow-shelf', '"crow-perch') WHERE instr(EvidenceJson, '"crow-shelf') > 0;
-- next
UPDATE Corrections SET InsteadJson = replace(InsteadJson, '"crow-shelf', '"crow-perch') WHERE instr(InsteadJson, '"crow-shelf') > 0;
-- next
UPDATE OwnLadders SET Json = replace(Json, '"crow-shelf', '"crow-perch') WHERE instr(Json, '"crow-shelf') > 0;
-- next
UPDATE Sets SET Drill = 'wrist-turns' WHERE Drill = 'wrist-flip-rotate';
-- next
UPDATE Signals SET Drill = 'wrist-turns' WHERE Drill = 'wrist-flip-rotate';
-- next
UPDATE ExitChecks SET Drill = 'wrist-turns' WHERE Drill = 'wrist-flip-rotate';
-- next
UPDATE Sessions SET PlanJson = replace(PlanJson, '"wrist-flip-rotate', '"wrist-turns') WHERE instr(PlanJson, '"wrist-flip-rotate') > 0;
-- next
UPDATE Sessions SET Worked = replace(Worked, '"wrist-flip-rotate', '"wrist-turns') WHERE instr(Worked, '"wrist-flip-rotate') > 0;
-- next
UPDATE Decisions SET EvidenceJson = replace(EvidenceJson, '"wrist-flip-rotate', '"wrist-turns') WHERE instr(EvidenceJson, '"wrist-flip-rotate') > 0;
-- next
UPDATE Corrections SET InsteadJson = replace(InsteadJson, '"wrist-flip-rotate', '"wrist-turns') WHERE instr(InsteadJson, '"wrist-flip-rotate') > 0;
-- next
UPDATE OwnLadders SET Json = replace(Json, '"wrist-flip-rotate', '"wrist-turns') WHERE instr(Json, '"wrist-flip-rotate') > 0;
-- next
UPDATE Board SET DueAt = 0, LineJson = '', Stamp = Stamp + 1;
-- next
UPDATE Roster SET DueAt = 0, LineJson = '', Stamp = Stamp + 1;
