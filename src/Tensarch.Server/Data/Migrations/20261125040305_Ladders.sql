-- next
ALTER TABLE "Skills" RENAME COLUMN "Ladder" TO "Skill";
-- next
DROP INDEX "IX_Skills_StudentId_Ladder";
-- next
CREATE UNIQUE INDEX "IX_Skills_StudentId_Skill" ON "Skills" ("StudentId", "Skill");
-- next
ALTER TABLE "Sessions" RENAME COLUMN "Ladder" TO "Skill";
-- next
ALTER TABLE "FormChecks" RENAME COLUMN "Ladder" TO "Skill";
-- next
DROP INDEX "IX_FormChecks_StudentId_Ladder_At";
-- next
CREATE INDEX "IX_FormChecks_StudentId_Skill_At" ON "FormChecks" ("StudentId", "Skill", "At");
-- next
ALTER TABLE "Decisions" RENAME COLUMN "Ladder" TO "Skill";
-- next
DROP INDEX "IX_Decisions_StudentId_Ladder_At";
-- next
CREATE INDEX "IX_Decisions_StudentId_Skill_At" ON "Decisions" ("StudentId", "Skill", "At");
-- next
ALTER TABLE "Students" ADD "ConsentOn" TEXT NULL;
-- next
ALTER TABLE "Students" ADD "DaysJson" TEXT NULL;
-- next
ALTER TABLE "Students" ADD "Equipment" TEXT NOT NULL DEFAULT '[]';
-- next
ALTER TABLE "Students" ADD "GoalsJson" TEXT NULL;
-- next
ALTER TABLE "Skills" ADD "LadderKey" TEXT NOT NULL DEFAULT '';
-- next
ALTER TABLE "Sessions" ADD "Worked" TEXT NOT NULL DEFAULT '[]';
-- next
ALTER TABLE "Readings" ADD "TrialsAt" TEXT NOT NULL DEFAULT '[]';
-- next
CREATE TABLE "Board" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Board" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Skill" TEXT NOT NULL,
    "Side" TEXT NULL,
    "Group" TEXT NOT NULL,
    "Rank" REAL NOT NULL,
    "LineJson" TEXT NOT NULL,
    "DueAt" INTEGER NOT NULL,
    "Stamp" INTEGER NOT NULL,
    CONSTRAINT "FK_Board_Students_StudentId" FOREIGN KEY ("StudentId") REFERENCES "Students" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Board_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Bodies" (
    "Id" INTEGER NOT NULL CONSTRAINT "PK_Bodies" PRIMARY KEY AUTOINCREMENT,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Version" INTEGER NOT NULL,
    "BodyJson" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    CONSTRAINT "FK_Bodies_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "ExitChecks" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_ExitChecks" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Skill" TEXT NOT NULL,
    "Stage" INTEGER NOT NULL,
    "Side" TEXT NULL,
    "Safe" INTEGER NOT NULL,
    "Of" INTEGER NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_ExitChecks_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "OwnLadders" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_OwnLadders" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "LadderKey" TEXT NOT NULL,
    "Version" INTEGER NOT NULL,
    "Skill" TEXT NOT NULL,
    "Name" TEXT NOT NULL,
    "Json" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_OwnLadders_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Screenings" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Screenings" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Kind" TEXT NOT NULL,
    "Note" TEXT NULL,
    "On" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Screenings_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Withdrawals" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Withdrawals" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "ClearanceId" TEXT NOT NULL,
    "Reason" TEXT NOT NULL,
    "On" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Withdrawals_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Board_StudentId" ON "Board" ("StudentId");
-- next
CREATE INDEX "IX_Board_StudioId_DueAt" ON "Board" ("StudioId", "DueAt");
-- next
CREATE INDEX "IX_Board_StudioId_Group_Rank_Id" ON "Board" ("StudioId", "Group", "Rank", "Id");
-- next
CREATE INDEX "IX_Board_StudioId_Skill_Group_Rank_Id" ON "Board" ("StudioId", "Skill", "Group", "Rank", "Id");
-- next
CREATE INDEX "IX_Bodies_StudentId_Id" ON "Bodies" ("StudentId", "Id");
-- next
CREATE INDEX "IX_Bodies_StudioId" ON "Bodies" ("StudioId");
-- next
CREATE INDEX "IX_ExitChecks_StudentId_Skill_At" ON "ExitChecks" ("StudentId", "Skill", "At");
-- next
CREATE INDEX "IX_ExitChecks_StudioId" ON "ExitChecks" ("StudioId");
-- next
CREATE UNIQUE INDEX "IX_OwnLadders_StudioId_LadderKey_Version" ON "OwnLadders" ("StudioId", "LadderKey", "Version");
-- next
CREATE INDEX "IX_Screenings_StudentId_At" ON "Screenings" ("StudentId", "At");
-- next
CREATE INDEX "IX_Screenings_StudioId" ON "Screenings" ("StudioId");
-- next
CREATE UNIQUE INDEX "IX_Withdrawals_ClearanceId" ON "Withdrawals" ("ClearanceId");
-- next
CREATE INDEX "IX_Withdrawals_StudentId" ON "Withdrawals" ("StudentId");
-- next
CREATE INDEX "IX_Withdrawals_StudioId" ON "Withdrawals" ("StudioId");
-- next
UPDATE Skills SET LadderKey = Skill;
-- next
INSERT INTO Board (Id, StudioId, StudentId, Skill, Side, "Group", Rank, LineJson, DueAt, Stamp)
SELECT upper(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-A' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6))),
    k.StudioId, k.StudentId, k.Skill, side.name, 'Training', 0, '', 621355968000000000, 0
FROM Skills k CROSS JOIN (SELECT 'Left' AS name UNION ALL SELECT 'Right') side;
-- next
INSERT INTO Screenings (Id, StudioId, StudentId, Kind, "On", At, "By", BodyHash)
SELECT upper(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-A' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6))),
    a.StudioId, a.StudentId, 'Whole', date((max(a.At) - 621355968000000000) / 10000000, 'unixepoch'), max(a.At), a."By", ''
FROM Answers a GROUP BY a.StudentId;
-- next
UPDATE Sessions SET Worked = (
    SELECT json_group_array(w) FROM (
        SELECT DISTINCT Drill || '/' || Variant || '/' || coalesce(Side, '') AS w FROM Sets WHERE SessionId = Sessions.Id ORDER BY 1
    )
);
