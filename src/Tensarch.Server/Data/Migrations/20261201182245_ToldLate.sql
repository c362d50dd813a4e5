-- next
ALTER TABLE "Sets" ADD "RecordedAt" INTEGER NOT NULL DEFAULT 0;
-- next
UPDATE "Sets" SET "RecordedAt" = "At";
-- next
ALTER TABLE "Readings" ADD "RecordedAt" INTEGER NOT NULL DEFAULT 0;
-- next
UPDATE "Readings" SET "RecordedAt" = "TakenAt";
-- next
ALTER TABLE "GateAnswers" ADD "RecordedAt" INTEGER NOT NULL DEFAULT 0;
-- next
UPDATE "GateAnswers" SET "RecordedAt" = "At";
-- next
ALTER TABLE "Events" ADD "RecordedAt" INTEGER NOT NULL DEFAULT 0;
-- next
UPDATE "Events" SET "RecordedAt" = "At";
-- next
ALTER TABLE "AspNetUsers" ADD "DeviceKey" BLOB NULL;
-- next
CREATE TABLE "Unsent" (
    "Device" TEXT NOT NULL,
    "UserId" TEXT NOT NULL,
    "StudioId" TEXT NOT NULL,
    "Waiting" INTEGER NOT NULL,
    "Oldest" INTEGER NULL,
    "Dropped" INTEGER NOT NULL,
    "Noted" INTEGER NOT NULL,
    "At" INTEGER NOT NULL,
    CONSTRAINT "PK_Unsent" PRIMARY KEY ("Device", "UserId"),
    CONSTRAINT "FK_Unsent_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Unsent_StudioId" ON "Unsent" ("StudioId");
-- next
CREATE INDEX "IX_Unsent_UserId" ON "Unsent" ("UserId");
