-- next
CREATE TABLE "Clips" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Clips" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "DrillKey" TEXT NOT NULL,
    "Variant" TEXT NOT NULL,
    "Kind" TEXT NOT NULL,
    "Bytes" INTEGER NOT NULL,
    "Gone" INTEGER NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_Clips_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE TABLE "OwnDrills" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_OwnDrills" PRIMARY KEY,
    "StudioId" TEXT NOT NULL,
    "DrillKey" TEXT NOT NULL,
    "Version" INTEGER NOT NULL,
    "Source" TEXT NOT NULL,
    "Json" TEXT NOT NULL,
    "Gone" INTEGER NOT NULL,
    "At" INTEGER NOT NULL,
    "By" TEXT NOT NULL,
    "BodyHash" TEXT NOT NULL,
    CONSTRAINT "FK_OwnDrills_Studios_StudioId" FOREIGN KEY ("StudioId") REFERENCES "Studios" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_Clips_StudioId_DrillKey" ON "Clips" ("StudioId", "DrillKey");
-- next
CREATE UNIQUE INDEX "IX_OwnDrills_StudioId_DrillKey_Version" ON "OwnDrills" ("StudioId", "DrillKey", "Version");
