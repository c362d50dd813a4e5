-- next
CREATE TABLE "Pulses" (
    "StudentId" TEXT NOT NULL CONSTRAINT "PK_Pulses" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "Beat" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "At" INTEGER NOT NULL,
    CONSTRAINT "FK_Pulses_Students_StudentId" FOREIGN KEY ("StudentId") REFERENCES "Students" ("Id") ON DELETE CASCADE,
    CONSTRAINT "FK_Pulses_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Pulses_StudioId" ON "Pulses" ("StudioId");
