UPDATE "Readings" SET "Level" = 'hands' WHERE "Measure" = 'squat-hold' AND "Level" IS NULL;
-- next
UPDATE "Readings" SET "Level" = 'wall' WHERE "Measure" = 'kick-up-success' AND "Level" IS NULL;
