-- next
ALTER TABLE "Sets" ADD "Doubled" INTEGER NOT NULL DEFAULT 0;
-- next
ALTER TABLE "Sessions" ADD "DeletedAt" INTEGER NULL;
-- next
ALTER TABLE "ExitChecks" ADD "Drill" TEXT NOT NULL DEFAULT '';
-- next
ALTER TABLE "ExitChecks" ADD "Variant" TEXT NULL;
-- next
UPDATE ExitChecks SET
    Drill = CASE Skill WHEN 'crow' THEN 'crow-step-back' WHEN 'handstand' THEN 'exit-wheel' ELSE 'roll-out' END,
    Variant = CASE WHEN Skill = 'shoulderstand' AND Stage >= 6 THEN 'straight' END
-- next
ALTER TABLE "Events" ADD "Device" TEXT NULL;
-- next
ALTER TABLE "Events" ADD "Doubled" INTEGER NOT NULL DEFAULT 0;
