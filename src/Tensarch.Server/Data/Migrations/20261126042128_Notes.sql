-- next
ALTER TABLE "Students" ADD "BodyWordsJson" TEXT NULL;
-- next
CREATE TABLE "Notes" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Notes" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Text" TEXT NOT NULL,
    "Said" TEXT NOT NULL,
    "Pinned" INTEGER NOT NULL,
    "CarryOver" INTEGER NOT NULL,
    "DoneAt" INTEGER NULL,
    "Gone" INTEGER NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Notes_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Notes_StudioId_StudentId_At" ON "Notes" ("StudioId", "StudentId", "At");
