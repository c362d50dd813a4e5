-- next
CREATE TABLE "SignIns" (
    "KeyHash" TEXT NOT NULL CONSTRAINT "PK_SignIns" PRIMARY KEY,
    "UserId" TEXT NOT NULL,
    "Ticket" BLOB NOT NULL,
    "ExpiresAt" INTEGER NOT NULL,
    CONSTRAINT "FK_SignIns_AspNetUsers_UserId" FOREIGN KEY ("UserId") REFERENCES "AspNetUsers" ("Id") ON DELETE CASCADE
);
-- next
CREATE INDEX "IX_SignIns_UserId" ON "SignIns" ("UserId");
-- next
UPDATE Skills
SET LadderKey = coalesce(
    (SELECT 'own-' || lower(replace(min(o.Id), '-', '')) FROM OwnLadders o
     WHERE o.StudioId = Skills.StudioId AND coalesce(json_extract(o.Json, '$.key'), '') = Skills.LadderKey),
    LadderKey)
WHERE (LadderKey = '' OR LadderKey GLOB '*[^a-z0-9-]*' OR length(LadderKey) > 60);
-- next
UPDATE OwnLadders
SET LadderKey = coalesce(
    (SELECT 'own-' || lower(replace(min(o.Id), '-', '')) FROM OwnLadders o
     WHERE o.StudioId = OwnLadders.StudioId AND coalesce(json_extract(o.Json, '$.key'), '') = OwnLadders.LadderKey),
    LadderKey)
WHERE (LadderKey = '' OR LadderKey GLOB '*[^a-z0-9-]*' OR length(LadderKey) > 60);
-- next
UPDATE OwnLadders SET Json = json_set(Json, '$.key', LadderKey) WHERE json_extract(Json, '$.key') <> LadderKey;
-- next
UPDATE Readings SET Successes = NULL, Attempts = NULL, Hits = NULL
WHERE Trials <> '[]' AND (Attempts IS NOT NULL OR Successes IS NOT NULL);
-- next
UPDATE Board SET DueAt = 0, Stamp = Stamp + 1;
-- next
UPDATE Roster SET DueAt = 0, Stamp = Stamp + 1;
