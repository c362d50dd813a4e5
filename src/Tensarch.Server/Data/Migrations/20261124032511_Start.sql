-- next
CREATE TABLE "AspNetUsers" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_AspNetUsers" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "DisplayName" TEXT NOT NULL,
    "Role" TEXT NOT NULL,
    "UserName" TEXT NULL,
    "NormalizedUserName" TEXT NULL,
    "Email" TEXT NULL,
    "NormalizedEmail" TEXT NULL,
    "EmailConfirmed" INTEGER NOT NULL,
    "PasswordHash" TEXT NULL,
    "SecurityStamp" TEXT NULL,
    "ConcurrencyStamp" TEXT NULL,
    "PhoneNumber" TEXT NULL,
    "PhoneNumberConfirmed" INTEGER NOT NULL,
    "TwoFactorEnabled" INTEGER NOT NULL,
    "LockoutEnd" INTEGER NULL,
    "LockoutEnabled" INTEGER NOT NULL,
    "AccessFailedCount" INTEGER NOT NULL
);
-- next
CREATE TABLE "Studios" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Studios" PRIMARY KEY,
    "Name" TEXT NOT NULL,
    "TimeZone" TEXT NOT NULL
);
-- next
CREATE TABLE "AspNetUserClaims" (
    "Id" INTEGER NOT NULL CONSTRAINT "PK_AspNetUserClaims" PRIMARY KEY AUTOINCREMENT,
    "UserId" TEXT NOT NULL,
    "ClaimType" TEXT NULL,
    "ClaimValue" TEXT NULL,
    CONSTRAINT "FK_AspNetUserClaims_AspNetUsers_UserId" FOREIGN KEY ("UserId") REFERENCES "AspNetUsers" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "AspNetUserLogins" (
    "LoginProvider" TEXT NOT NULL,
    "ProviderKey" TEXT NOT NULL,
    "ProviderDisplayName" TEXT NULL,
    "UserId" TEXT NOT NULL,
    CONSTRAINT "PK_AspNetUserLogins" PRIMARY KEY ("LoginProvider", "ProviderKey"),
    CONSTRAINT "FK_AspNetUserLogins_AspNetUsers_UserId" FOREIGN KEY ("UserId") REFERENCES "AspNetUsers" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "AspNetUserTokens" (
    "UserId" TEXT NOT NULL,
    "LoginProvider" TEXT NOT NULL,
    "Name" TEXT NOT NULL,
    "Value" TEXT NULL,
    CONSTRAINT "PK_AspNetUserTokens" PRIMARY KEY ("UserId", "LoginProvider", "Name"),
    CONSTRAINT "FK_AspNetUserTokens_AspNetUsers_UserId" FOREIGN KEY ("UserId") REFERENCES "AspNetUsers" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Answers" (
    "Id" INTEGER NOT NULL CONSTRAINT "PK_Answers" PRIMARY KEY AUTOINCREMENT,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Question" TEXT NOT NULL,
    "Yes" INTEGER NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    CONSTRAINT "FK_Answers_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Clearances" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Clearances" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Role" TEXT NOT NULL,
    "Tags" TEXT NOT NULL,
    "From" TEXT NOT NULL,
    "Until" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Clearances_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Decisions" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Decisions" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Ladder" TEXT NOT NULL,
    "Side" TEXT NULL,
    "Kind" TEXT NOT NULL,
    "FromStage" INTEGER NOT NULL,
    "ToStage" INTEGER NOT NULL,
    "Reason" TEXT NULL,
    "EvidenceJson" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Decisions_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "FormChecks" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_FormChecks" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Ladder" TEXT NOT NULL,
    "Stage" INTEGER NOT NULL,
    "Side" TEXT NULL,
    "Ticked" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_FormChecks_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Readings" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Readings" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Measure" TEXT NOT NULL,
    "Side" TEXT NULL,
    "Mode" TEXT NOT NULL,
    "Level" TEXT NULL,
    "Warmth" TEXT NOT NULL,
    "Standard" TEXT NULL,
    "Instrument" TEXT NOT NULL,
    "Trials" TEXT NOT NULL,
    "Compensations" TEXT NOT NULL,
    "Disqualified" INTEGER NOT NULL,
    "Quality" INTEGER NULL,
    "Sensation" INTEGER NULL,
    "Pain" INTEGER NULL,
    "Note" TEXT NULL,
    "Sem" REAL NOT NULL,
    "Tau" REAL NOT NULL,
    "Resolution" REAL NOT NULL,
    "Value" REAL NOT NULL,
    "StandardError" REAL NOT NULL,
    "TakenAt" INTEGER NOT NULL,
    "TakenBy" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Readings_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Reviews" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Reviews" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Tag" TEXT NOT NULL,
    "Note" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Reviews_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Sessions" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Sessions" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Ladder" TEXT NOT NULL,
    "Date" TEXT NOT NULL,
    "PlanJson" TEXT NOT NULL,
    "TotalSeconds" INTEGER NOT NULL,
    "FirstSide" TEXT NOT NULL,
    "CreatedAt" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    "StartedAt" INTEGER NULL,
    "StartedOn" TEXT NULL,
    "EndedAt" INTEGER NULL,
    CONSTRAINT "FK_Sessions_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Sets" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Sets" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "SessionId" TEXT NULL,
    "Drill" TEXT NOT NULL,
    "Variant" TEXT NOT NULL,
    "Side" TEXT NULL,
    "Round" INTEGER NOT NULL,
    "Seconds" REAL NULL,
    "CleanReps" INTEGER NULL,
    "Quality" INTEGER NULL,
    "Sensation" INTEGER NULL,
    "At" INTEGER NOT NULL,
    "Day" TEXT NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Sets_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Signals" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Signals" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "SessionId" TEXT NULL,
    "Drill" TEXT NULL,
    "Kind" TEXT NOT NULL,
    "Region" TEXT NULL,
    "Side" TEXT NULL,
    "Pain" INTEGER NULL,
    "Note" TEXT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Signals_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Skills" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Skills" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "StudentId" TEXT NOT NULL,
    "Ladder" TEXT NOT NULL,
    "LadderVersion" INTEGER NOT NULL,
    "Approach" TEXT NOT NULL,
    "StartedAt" INTEGER NOT NULL,
    CONSTRAINT "FK_Skills_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "Students" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Students" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "Version" INTEGER NOT NULL,
    "Name" TEXT COLLATE NOCASE NOT NULL,
    "About" TEXT NULL,
    "BirthDate" TEXT NULL,
    "LeftLegCm" REAL NULL,
    "RightLegCm" REAL NULL,
    "BodyweightKg" REAL NULL,
    "BreathSeconds" REAL NOT NULL,
    "SensationCeiling" INTEGER NOT NULL,
    "SplitStandard" TEXT NOT NULL,
    "BlocksOwned" INTEGER NOT NULL,
    "SessionMinutes" INTEGER NOT NULL,
    "GuardianConsentOn" TEXT NULL,
    "CreatedAt" INTEGER NOT NULL,
    "ArchivedAt" INTEGER NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Students_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "ReadingVoids" (
    "ReadingId" TEXT NOT NULL CONSTRAINT "PK_ReadingVoids" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "Reason" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    CONSTRAINT "FK_ReadingVoids_Readings_ReadingId" FOREIGN KEY ("ReadingId") REFERENCES "Readings" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_ReadingVoids_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Answers_StudentId_Id" ON "Answers" ("StudentId", "Id");
-- next
CREATE INDEX "IX_Answers_StudioId" ON "Answers" ("StudioId");
-- next
CREATE INDEX "IX_AspNetUserClaims_UserId" ON "AspNetUserClaims" ("UserId");
-- next
CREATE INDEX "IX_AspNetUserLogins_UserId" ON "AspNetUserLogins" ("UserId");
-- next
CREATE INDEX "EmailIndex" ON "AspNetUsers" ("NormalizedEmail");
-- next
CREATE INDEX "IX_AspNetUsers_StudioId" ON "AspNetUsers" ("StudioId");
-- next
CREATE UNIQUE INDEX "UserNameIndex" ON "AspNetUsers" ("NormalizedUserName");
-- next
CREATE INDEX "IX_Clearances_StudentId" ON "Clearances" ("StudentId");
-- next
CREATE INDEX "IX_Clearances_StudioId" ON "Clearances" ("StudioId");
-- next
CREATE INDEX "IX_Decisions_StudentId_Ladder_At" ON "Decisions" ("StudentId", "Ladder", "At");
-- next
CREATE INDEX "IX_Decisions_StudioId" ON "Decisions" ("StudioId");
-- next
CREATE INDEX "IX_FormChecks_StudentId_Ladder_At" ON "FormChecks" ("StudentId", "Ladder", "At");
-- next
CREATE INDEX "IX_FormChecks_StudioId" ON "FormChecks" ("StudioId");
-- next
CREATE INDEX "IX_ReadingVoids_StudioId" ON "ReadingVoids" ("StudioId");
-- next
CREATE INDEX "IX_Readings_StudentId_Measure_Side_TakenAt" ON "Readings" ("StudentId", "Measure", "Side", "TakenAt");
-- next
CREATE INDEX "IX_Readings_StudentId_TakenAt" ON "Readings" ("StudentId", "TakenAt");
-- next
CREATE INDEX "IX_Readings_StudioId" ON "Readings" ("StudioId");
-- next
CREATE INDEX "IX_Reviews_StudentId" ON "Reviews" ("StudentId");
-- next
CREATE INDEX "IX_Reviews_StudioId" ON "Reviews" ("StudioId");
-- next
CREATE INDEX "IX_Sessions_StudentId_CreatedAt" ON "Sessions" ("StudentId", "CreatedAt");
-- next
CREATE INDEX "IX_Sessions_StudentId_StartedAt" ON "Sessions" ("StudentId", "StartedAt");
-- next
CREATE INDEX "IX_Sessions_StudioId" ON "Sessions" ("StudioId");
-- next
CREATE INDEX "IX_Sets_SessionId" ON "Sets" ("SessionId");
-- next
CREATE INDEX "IX_Sets_StudentId_At" ON "Sets" ("StudentId", "At");
-- next
CREATE INDEX "IX_Sets_StudioId" ON "Sets" ("StudioId");
-- next
CREATE INDEX "IX_Signals_StudentId_At" ON "Signals" ("StudentId", "At");
-- next
CREATE INDEX "IX_Signals_StudioId" ON "Signals" ("StudioId");
-- next
CREATE UNIQUE INDEX "IX_Skills_StudentId_Ladder" ON "Skills" ("StudentId", "Ladder");
-- next
CREATE INDEX "IX_Skills_StudioId" ON "Skills" ("StudioId");
-- next
CREATE INDEX "IX_Students_StudioId_ArchivedAt_Name_Id" ON "Students" ("StudioId", "ArchivedAt", "Name", "Id");
