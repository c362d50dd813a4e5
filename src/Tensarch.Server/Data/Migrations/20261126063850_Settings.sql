-- next
ALTER TABLE "Studios" ADD "OpeningJson" TEXT NULL;
-- next
ALTER TABLE "Studios" ADD "StandInsJson" TEXT NULL;
-- next
ALTER TABLE "Studios" ADD "Version" INTEGER NOT NULL DEFAULT 0;
-- next
ALTER TABLE "AspNetUsers" ADD "LeftAt" INTEGER NULL;
-- next
CREATE TABLE "Presets" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Presets" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "Name" TEXT NOT NULL,
    "PracticeJson" TEXT NOT NULL,
    "Gone" INTEGER NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Presets_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Presets_StudioId_Name" ON "Presets" ("StudioId", "Name");
