-- next
CREATE INDEX "IX_Signals_StudioId_At" ON "Signals" ("StudioId", "At");
