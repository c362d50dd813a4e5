-- next
ALTER TABLE "Sessions" ADD "Half" TEXT NULL;
-- next
ALTER TABLE "Sessions" ADD "Sequence" INTEGER NOT NULL DEFAULT 0;
-- next
CREATE TABLE "Plans" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Plans" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Number" INTEGER NOT NULL,
    "SketchJson" TEXT NOT NULL,
    "DaysJson" TEXT NOT NULL,
    "Why" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "EndedAt" INTEGER NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Plans_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE UNIQUE INDEX "IX_Plans_StudioId_StudentId_Number" ON "Plans" ("StudioId", "StudentId", "Number");
