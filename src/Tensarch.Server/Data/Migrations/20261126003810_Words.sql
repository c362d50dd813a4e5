-- next
UPDATE Decisions SET EvidenceJson = replace(EvidenceJson, '"heldTags":', '"offLimits":') WHERE instr(EvidenceJson, '"heldTags":') > 0;
-- next
UPDATE Decisions SET EvidenceJson = replace(EvidenceJson, '"tagHeld"', '"tagOffLimits"') WHERE instr(EvidenceJson, '"tagHeld"') > 0;
-- next
UPDATE Decisions SET EvidenceJson = replace(EvidenceJson, '"resolveHold"', '"liftBar"') WHERE instr(EvidenceJson, '"resolveHold"') > 0;
-- next
UPDATE Sessions SET PlanJson = replace(PlanJson, '"code":"heldTag"', '"code":"offLimits"') WHERE instr(PlanJson, '"code":"heldTag"') > 0;
-- next
UPDATE Sessions SET PlanJson = replace(PlanJson, '"code":"limitedTag"', '"code":"lightOnly"') WHERE instr(PlanJson, '"code":"limitedTag"') > 0;
-- next
UPDATE Board SET DueAt = 0, LineJson = '', Stamp = Stamp + 1;
-- next
UPDATE Roster SET DueAt = 0, LineJson = '', Stamp = Stamp + 1;
