-- next
DROP INDEX "IX_Readings_StudentId_Measure_Side_TakenAt";
-- next
DROP INDEX "IX_Readings_StudentId_TakenAt";
-- next
DROP INDEX "IX_Readings_StudioId";
-- next
ALTER TABLE "Studios" ADD "BlocksJson" TEXT NULL;
-- next
ALTER TABLE "Studios" ADD "BlocksVersion" INTEGER NOT NULL DEFAULT 0;
-- next
ALTER TABLE "Students" ADD "HipWidthCm" REAL NOT NULL DEFAULT 17.0;
-- next
ALTER TABLE "Readings" ADD "Attempts" INTEGER NULL;
-- next
ALTER TABLE "Readings" ADD "Confirmed" INTEGER NOT NULL DEFAULT 0;
-- next
ALTER TABLE "Readings" ADD "Hits" TEXT NULL;
-- next
ALTER TABLE "Readings" ADD "Marks" TEXT NOT NULL DEFAULT '[]';
-- next
ALTER TABLE "Readings" ADD "SemDof" INTEGER NOT NULL DEFAULT 0;
-- next
ALTER TABLE "Readings" ADD "SittingId" TEXT NULL;
-- next
ALTER TABLE "Readings" ADD "StacksJson" TEXT NULL;
-- next
ALTER TABLE "Readings" ADD "Successes" INTEGER NULL;
-- next
ALTER TABLE "Readings" ADD "TauPairs" INTEGER NOT NULL DEFAULT 0;
-- next
CREATE TABLE "OwnMeasures" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_OwnMeasures" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "Measure" TEXT NOT NULL,
    "Version" INTEGER NOT NULL,
    "Json" TEXT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_OwnMeasures_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Pictures" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Pictures" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "View" TEXT NOT NULL,
    "Width" INTEGER NOT NULL,
    "Height" INTEGER NOT NULL,
    "TakenAt" INTEGER NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Pictures_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Sittings" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Sittings" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Scope" TEXT NOT NULL,
    "ItemsJson" TEXT NOT NULL,
    "StartedAt" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "EndedAt" INTEGER NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Sittings_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Marks" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Marks" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "PictureId" TEXT NOT NULL,
    "PlacementJson" TEXT NOT NULL,
    "Value" REAL NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Marks_Pictures_PictureId" FOREIGN KEY ("PictureId") REFERENCES "Pictures" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Marks_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Drafts" (
    "SittingId" TEXT NOT NULL,
    "Slot" TEXT NOT NULL,
    "StudioId" TEXT NOT NULL,
    "Version" INTEGER NOT NULL,
    "Json" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    CONSTRAINT "PK_Drafts" PRIMARY KEY ("SittingId", "Slot"),
    CONSTRAINT "FK_Drafts_Sittings_SittingId" FOREIGN KEY ("SittingId") REFERENCES "Sittings" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Drafts_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Readings_SittingId" ON "Readings" ("SittingId");
-- next
CREATE INDEX "IX_Readings_StudioId_Measure_TakenAt_Id" ON "Readings" ("StudioId", "Measure", "TakenAt", "Id");
-- next
CREATE INDEX "IX_Readings_StudioId_StudentId_Measure_Side_TakenAt_Id" ON "Readings" ("StudioId", "StudentId", "Measure", "Side", "TakenAt", "Id");
-- next
CREATE INDEX "IX_Readings_StudioId_StudentId_TakenAt_Id" ON "Readings" ("StudioId", "StudentId", "TakenAt", "Id");
-- next
CREATE INDEX "IX_Readings_StudioId_TakenAt_Id" ON "Readings" ("StudioId", "TakenAt", "Id");
-- next
CREATE INDEX "IX_Readings_StudioId_TakenBy_Measure_Instrument_TakenAt" ON "Readings" ("StudioId", "TakenBy", "Measure", "Instrument", "TakenAt");
-- next
CREATE INDEX "IX_Drafts_StudioId" ON "Drafts" ("StudioId");
-- next
CREATE INDEX "IX_Marks_PictureId_At" ON "Marks" ("PictureId", "At");
-- next
CREATE INDEX "IX_Marks_StudioId" ON "Marks" ("StudioId");
-- next
CREATE UNIQUE INDEX "IX_OwnMeasures_StudioId_Measure_Version" ON "OwnMeasures" ("StudioId", "Measure", "Version");
-- next
CREATE INDEX "IX_Pictures_StudentId_TakenAt_Id" ON "Pictures" ("StudentId", "TakenAt", "Id");
-- next
CREATE INDEX "IX_Pictures_StudioId" ON "Pictures" ("StudioId");
-- next
CREATE INDEX "IX_Sittings_StudentId_EndedAt_StartedAt" ON "Sittings" ("StudentId", "EndedAt", "StartedAt");
-- next
CREATE INDEX "IX_Sittings_StudioId" ON "Sittings" ("StudioId");
