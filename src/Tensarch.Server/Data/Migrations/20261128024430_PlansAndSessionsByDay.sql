-- next
CREATE INDEX "IX_Sessions_StudioId_StudentId_Date" ON "Sessions" ("StudioId", "StudentId", "Date");
-- next
CREATE INDEX "IX_Sessions_StudioId_StudentId_StartedOn" ON "Sessions" ("StudioId", "StudentId", "StartedOn");
-- next
CREATE INDEX "IX_Plans_StudioId_StudentId_At" ON "Plans" ("StudioId", "StudentId", "At");
