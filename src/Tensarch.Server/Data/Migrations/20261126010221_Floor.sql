-- next
ALTER TABLE "Sets" ADD "Confirmed" INTEGER NOT NULL DEFAULT 1;
-- next
ALTER TABLE "Sets" ADD "UnderBar" INTEGER NOT NULL DEFAULT 0;
-- next
CREATE TABLE "Corrections" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Corrections" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "What" TEXT NOT NULL,
    "Of" TEXT NOT NULL,
    "InsteadJson" TEXT NULL,
    "Reason" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Corrections_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Events" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Events" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "SessionId" TEXT NOT NULL,
    "Seq" INTEGER NOT NULL,
    "At" INTEGER NOT NULL,
    "SaidJson" TEXT NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Events_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "GateAnswers" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_GateAnswers" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "SessionId" TEXT NOT NULL,
    "Gate" TEXT NOT NULL,
    "Side" TEXT NULL,
    "AnswersJson" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_GateAnswers_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Corrections_StudioId_StudentId" ON "Corrections" ("StudioId", "StudentId");
-- next
CREATE INDEX "IX_Events_SessionId" ON "Events" ("SessionId");
-- next
CREATE INDEX "IX_Events_StudioId" ON "Events" ("StudioId");
-- next
CREATE INDEX "IX_GateAnswers_SessionId" ON "GateAnswers" ("SessionId");
-- next
CREATE INDEX "IX_GateAnswers_StudioId" ON "GateAnswers" ("StudioId");
