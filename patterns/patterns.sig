{
  "schema": "mill-card/signature/1",
  "key": "MFkwEwYHKoZIzj0CAQYIKoZIzj0DAQcDQgAEJAbDGVfHJI4DvZnROE832jseAlNE5r9ea0QQ+SjWkeoG1pozwoSaqOiIoDaGgK/nm3pffAT7gJeUpupukZvB4w==",
  "signature": "MEQCIAOhmO/tC0hpi/4VEOgadtF3n09CkUAVPitF/F0a1RGzAiAXVKTfbGW32U5N/AyVoP/MkraFhMfHYuElC2q1AMEEnQ=="
}
