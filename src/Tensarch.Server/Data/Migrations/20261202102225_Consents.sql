ALTER TABLE "Answers" ADD "Signs" TEXT NULL;
-- next
ALTER TABLE "Students" ADD "ConsentNeeded" INTEGER NOT NULL DEFAULT 0;
-- next
CREATE TABLE "Consents" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Consents" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Kind" TEXT NOT NULL,
    "Given" INTEGER NOT NULL,
    "SaidBy" TEXT NULL,
    "On" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Consents_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Consents_StudioId_StudentId" ON "Consents" ("StudioId", "StudentId");
-- next
CREATE TABLE "CheckIns" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_CheckIns" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Day" TEXT NOT NULL,
    "SleptBadly" INTEGER NOT NULL,
    "Ill" INTEGER NOT NULL,
    "TrainedHard" INTEGER NOT NULL,
    "FeltJson" TEXT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_CheckIns_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_CheckIns_StudioId_StudentId_At" ON "CheckIns" ("StudioId", "StudentId", "At");
-- next
-- What stood as dates in the body data: counted from when the student was written down, as it did before.
INSERT INTO "Consents" ("Id", "StudioId", "StudentId", "Kind", "Given", "SaidBy", "On", "At", "By", "BodyHash")
SELECT upper(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-A' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6))),
    s."StudioId", s."Id", 'Guardian', 1, NULL, s."GuardianConsentOn", s."CreatedAt",
    COALESCE((SELECT b."By" FROM "Bodies" b WHERE b."StudentId" = s."Id" ORDER BY b."Id" DESC LIMIT 1), '00000000-0000-0000-0000-000000000000'), ''
FROM "Students" s WHERE s."GuardianConsentOn" IS NOT NULL;
-- next
INSERT INTO "Consents" ("Id", "StudioId", "StudentId", "Kind", "Given", "SaidBy", "On", "At", "By", "BodyHash")
SELECT upper(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-A' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6))),
    s."StudioId", s."Id", 'Records', 1, NULL, s."ConsentOn", s."CreatedAt",
    COALESCE((SELECT b."By" FROM "Bodies" b WHERE b."StudentId" = s."Id" ORDER BY b."Id" DESC LIMIT 1), '00000000-0000-0000-0000-000000000000'), ''
FROM "Students" s WHERE s."ConsentOn" IS NOT NULL;
-- next
ALTER TABLE "Students" DROP COLUMN "GuardianConsentOn";
-- next
ALTER TABLE "Students" DROP COLUMN "ConsentOn";
