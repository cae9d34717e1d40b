DROP TABLE sign_in_failures
