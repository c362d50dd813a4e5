-- next
CREATE INDEX "IX_Sessions_StudioId_Date" ON "Sessions" ("StudioId", "Date");
