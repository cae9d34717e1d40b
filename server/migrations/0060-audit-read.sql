ALTER TABLE audit
  ADD KEY audit_by_who (who, id),
  ADD KEY audit_by_what (what, id)
