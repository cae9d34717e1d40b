ALTER TABLE courses
  ADD KEY courses_by_code (term_code, code)
