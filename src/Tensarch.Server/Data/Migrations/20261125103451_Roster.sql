-- next
CREATE TABLE "Roster" (
    "StudentId" TEXT NOT NULL CONSTRAINT "PK_Roster" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "LineJson" TEXT NOT NULL,
    "DueAt" INTEGER NOT NULL,
    "Stamp" INTEGER NOT NULL,
    CONSTRAINT "FK_Roster_Students_StudentId" FOREIGN KEY ("StudentId") REFERENCES "Students" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Roster_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Decisions_StudioId_Skill_At" ON "Decisions" ("StudioId", "Skill", "At");
-- next
CREATE INDEX "IX_Roster_StudioId_DueAt" ON "Roster" ("StudioId", "DueAt");
-- next
INSERT INTO Roster (StudentId, StudioId, LineJson, DueAt, Stamp) SELECT Id, StudioId, '', 0, 0 FROM Students;
