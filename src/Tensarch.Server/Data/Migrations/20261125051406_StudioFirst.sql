-- next
DROP INDEX "IX_Withdrawals_StudentId";
-- next
DROP INDEX "IX_Withdrawals_StudioId";
-- next
DROP INDEX "IX_Skills_StudioId";
-- next
DROP INDEX "IX_Signals_StudentId_At";
-- next
DROP INDEX "IX_Signals_StudioId";
-- next
DROP INDEX "IX_Sets_StudentId_At";
-- next
DROP INDEX "IX_Sets_StudioId";
-- next
DROP INDEX "IX_Sessions_StudentId_CreatedAt";
-- next
DROP INDEX "IX_Sessions_StudentId_StartedAt";
-- next
DROP INDEX "IX_Sessions_StudioId";
-- next
DROP INDEX "IX_Screenings_StudentId_At";
-- next
DROP INDEX "IX_Screenings_StudioId";
-- next
DROP INDEX "IX_Reviews_StudentId";
-- next
DROP INDEX "IX_Reviews_StudioId";
-- next
DROP INDEX "IX_FormChecks_StudentId_Skill_At";
-- next
DROP INDEX "IX_FormChecks_StudioId";
-- next
DROP INDEX "IX_ExitChecks_StudentId_Skill_At";
-- next
DROP INDEX "IX_ExitChecks_StudioId";
-- next
DROP INDEX "IX_Decisions_StudentId_Skill_At";
-- next
DROP INDEX "IX_Decisions_StudioId";
-- next
DROP INDEX "IX_Clearances_StudentId";
-- next
DROP INDEX "IX_Clearances_StudioId";
-- next
DROP INDEX "IX_Bodies_StudentId_Id";
-- next
DROP INDEX "IX_Bodies_StudioId";
-- next
DROP INDEX "IX_Answers_StudentId_Id";
-- next
DROP INDEX "IX_Answers_StudioId";
-- next
CREATE INDEX "IX_Withdrawals_StudioId_StudentId" ON "Withdrawals" ("StudioId", "StudentId");
-- next
CREATE INDEX "IX_Skills_StudioId_StudentId" ON "Skills" ("StudioId", "StudentId");
-- next
CREATE INDEX "IX_Signals_StudioId_StudentId_At" ON "Signals" ("StudioId", "StudentId", "At");
-- next
CREATE INDEX "IX_Sets_StudioId_StudentId_At" ON "Sets" ("StudioId", "StudentId", "At");
-- next
CREATE INDEX "IX_Sessions_StudioId_StudentId_CreatedAt" ON "Sessions" ("StudioId", "StudentId", "CreatedAt");
-- next
CREATE INDEX "IX_Sessions_StudioId_StudentId_StartedAt" ON "Sessions" ("StudioId", "StudentId", "StartedAt");
-- next
CREATE INDEX "IX_Screenings_StudioId_StudentId_At" ON "Screenings" ("StudioId", "StudentId", "At");
-- next
CREATE INDEX "IX_Reviews_StudioId_StudentId" ON "Reviews" ("StudioId", "StudentId");
-- next
CREATE INDEX "IX_FormChecks_StudioId_StudentId_At" ON "FormChecks" ("StudioId", "StudentId", "At");
-- next
CREATE INDEX "IX_ExitChecks_StudioId_StudentId_At" ON "ExitChecks" ("StudioId", "StudentId", "At");
-- next
CREATE INDEX "IX_Decisions_StudioId_StudentId_At_Id" ON "Decisions" ("StudioId", "StudentId", "At", "Id");
-- next
CREATE INDEX "IX_Clearances_StudioId_StudentId" ON "Clearances" ("StudioId", "StudentId");
-- next
CREATE INDEX "IX_Bodies_StudioId_StudentId_Id" ON "Bodies" ("StudioId", "StudentId", "Id");
-- next
CREATE INDEX "IX_Board_StudioId_StudentId" ON "Board" ("StudioId", "StudentId");
-- next
CREATE INDEX "IX_Answers_StudioId_StudentId_Id" ON "Answers" ("StudioId", "StudentId", "Id");
