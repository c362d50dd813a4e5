-- next
ALTER TABLE "Signals" ADD "RecordedAt" INTEGER NOT NULL DEFAULT 0;
-- next
UPDATE "Signals" SET "RecordedAt" = "At";
-- next
ALTER TABLE "Sets" DROP COLUMN "UnderBar";
