-- next
CREATE TABLE "PlanVersions" (
    "SessionId" TEXT NOT NULL,
    "Number" INTEGER NOT NULL,
    "StudioId" TEXT NOT NULL,
    "PlanJson" TEXT NOT NULL,
    "Skill" TEXT NOT NULL,
    "Beside" TEXT NOT NULL,
    "TotalSeconds" INTEGER NOT NULL,
    "FirstSide" TEXT NOT NULL,
    "Why" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    CONSTRAINT "PK_PlanVersions" PRIMARY KEY ("SessionId", "Number"),
    CONSTRAINT "FK_PlanVersions_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
INSERT INTO "PlanVersions" SELECT "Id", 1, "StudioId", "PlanBefore", "Skill", "Beside", "TotalSeconds", "FirstSide", 'before', "CreatedAt", "By"
FROM "Sessions" WHERE "PlanBefore" IS NOT NULL;
-- next
INSERT INTO "PlanVersions" SELECT "Id", CASE WHEN "PlanBefore" IS NULL THEN 1 ELSE 2 END, "StudioId", "PlanJson", "Skill", "Beside", "TotalSeconds", "FirstSide", 'before', "CreatedAt", "By"
FROM "Sessions";
-- next
UPDATE "PlanVersions" SET "Skill" = COALESCE(json_extract("PlanJson", '$.skill'), "Skill") WHERE json_valid("PlanJson");
-- next
CREATE TABLE "NewSessions" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Sessions" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Date" TEXT NOT NULL,
    "Half" TEXT NULL,
    "Version" INTEGER NOT NULL,
    "Plan" INTEGER NOT NULL,
    "Before" INTEGER NULL,
    "Sequence" INTEGER NOT NULL,
    "CreatedAt" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    "DeletedAt" INTEGER NULL,
    CONSTRAINT "FK_Sessions_PlanVersions_Id_Plan" FOREIGN KEY ("Id", "Plan") REFERENCES "PlanVersions" ("SessionId", "Number") ON DELETE RESTRICT,
    CONSTRAINT "FK_Sessions_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
INSERT INTO "NewSessions" SELECT "Id", "StudioId", "StudentId", "Date", "Half",
    CASE WHEN "PlanBefore" IS NULL THEN 1 ELSE 2 END, CASE WHEN "PlanBefore" IS NULL THEN 1 ELSE 2 END, CASE WHEN "PlanBefore" IS NULL THEN NULL ELSE 1 END,
    "Sequence", "CreatedAt", "By", "BodyHash", "DeletedAt"
FROM "Sessions";
-- next
ALTER TABLE "Sessions" RENAME TO "OldSessions";
-- next
ALTER TABLE "NewSessions" RENAME TO "Sessions";
-- next
CREATE TABLE "Trainings" (
    "SessionId" TEXT NOT NULL CONSTRAINT "PK_Trainings" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Plan" INTEGER NOT NULL,
    "StartedAt" INTEGER NULL,
    "StartedOn" TEXT NULL,
    "EndedAt" INTEGER NULL,
    "Worked" TEXT NOT NULL,
    CONSTRAINT "FK_Trainings_PlanVersions_SessionId_Plan" FOREIGN KEY ("SessionId", "Plan") REFERENCES "PlanVersions" ("SessionId", "Number") ON DELETE RESTRICT,
    CONSTRAINT "FK_Trainings_Sessions_SessionId" FOREIGN KEY ("SessionId") REFERENCES "Sessions" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Trainings_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
INSERT INTO "Trainings" SELECT s."Id", s."StudioId", s."StudentId", n."Plan", s."StartedAt", s."StartedOn", s."EndedAt", s."Worked"
FROM "OldSessions" AS s JOIN "Sessions" AS n ON n."Id" = s."Id"
WHERE s."StartedAt" IS NOT NULL OR s."EndedAt" IS NOT NULL;
-- next
DROP TABLE "OldSessions";
-- next
WITH "Ranked" AS (
    SELECT s."Id", t."SessionId" IS NOT NULL AS "Trained", ROW_NUMBER() OVER (
        PARTITION BY s."StudentId", s."Date", s."Half"
        ORDER BY t."SessionId" IS NOT NULL DESC,
            instr((SELECT lower(p."DaysJson") FROM "Plans" AS p WHERE p."StudentId" = s."StudentId" ORDER BY p."Number" DESC LIMIT 1), lower(s."Id")) > 0 DESC,
            s."CreatedAt" DESC, s."Id"
    ) AS "Place"
    FROM "Sessions" AS s LEFT JOIN "Trainings" AS t ON t."SessionId" = s."Id"
    WHERE s."Half" IS NOT NULL AND s."DeletedAt" IS NULL
)
UPDATE "Sessions" SET
    "Half" = CASE WHEN (SELECT r."Trained" FROM "Ranked" AS r WHERE r."Id" = "Sessions"."Id") THEN NULL ELSE "Half" END,
    "DeletedAt" = CASE WHEN (SELECT r."Trained" FROM "Ranked" AS r WHERE r."Id" = "Sessions"."Id") THEN NULL ELSE (strftime('%s', 'now') + 62135596800) * 10000000 END
WHERE "Id" IN (SELECT "Id" FROM "Ranked" WHERE "Place" > 1);
-- next
CREATE TABLE "Commands" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Commands" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "SessionId" TEXT NOT NULL,
    "AnswerJson" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Commands_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Commands_StudioId" ON "Commands" ("StudioId");
-- next
CREATE INDEX "IX_PlanVersions_StudioId" ON "PlanVersions" ("StudioId");
-- next
CREATE INDEX "IX_Sessions_Id_Plan" ON "Sessions" ("Id", "Plan");
-- next
CREATE UNIQUE INDEX "IX_Sessions_StudentId_Date_Half" ON "Sessions" ("StudentId", "Date", "Half") WHERE "Half" IS NOT NULL AND "DeletedAt" IS NULL;
-- next
CREATE INDEX "IX_Sessions_StudioId_Date" ON "Sessions" ("StudioId", "Date");
-- next
CREATE INDEX "IX_Sessions_StudioId_StudentId_CreatedAt" ON "Sessions" ("StudioId", "StudentId", "CreatedAt");
-- next
CREATE INDEX "IX_Sessions_StudioId_StudentId_Date" ON "Sessions" ("StudioId", "StudentId", "Date");
-- next
CREATE INDEX "IX_Trainings_SessionId_Plan" ON "Trainings" ("SessionId", "Plan");
-- next
CREATE INDEX "IX_Trainings_StudioId_StudentId_StartedAt" ON "Trainings" ("StudioId", "StudentId", "StartedAt");
-- next
CREATE INDEX "IX_Trainings_StudioId_StudentId_StartedOn" ON "Trainings" ("StudioId", "StudentId", "StartedOn");
-- next
ALTER TABLE "Pulses" ADD "Facts" INTEGER NOT NULL DEFAULT 0;
-- next
ALTER TABLE "Sets" DROP COLUMN "Sensation";
