{
  "schema": "mill-card/signature/1",
  "key": "MFkwEwYHKoZIzj0CAQYIKoZIzj0DAQcDQgAEv81h8/+PGchsrBPuzVl23N0Ip98UadhbZWe1g4SRTBsZBY/5bC3kgSmHMDXhLA6o4I6IWL3O5WWValQBcheXKQ==",
  "signature": "MEYCIQCWlhKwkLb7q0aoauVBMAx8pv2QOOnO+WAuVe/t9ACTUAIhAJ0ZCHx/zHcWBdLwkLZUusnSaq021GQIiWSAi80XR/gS"
}
