-- next
CREATE TABLE "Feeds" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Feeds" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NULL,
    "By" TEXT NOT NULL,
    "Token" TEXT NOT NULL,
    "Morning" TEXT NOT NULL,
    "Afternoon" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "RevokedAt" INTEGER NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Feeds_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "RosterRuns" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_RosterRuns" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "AlsoNew" INTEGER NOT NULL,
    "LinesJson" TEXT NOT NULL,
    "CancelledAt" INTEGER NULL,
    "EndedAt" INTEGER NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_RosterRuns_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Feeds_StudioId" ON "Feeds" ("StudioId");
-- next
CREATE UNIQUE INDEX "IX_Feeds_Token" ON "Feeds" ("Token");
-- next
CREATE INDEX "IX_RosterRuns_StudioId" ON "RosterRuns" ("StudioId");
