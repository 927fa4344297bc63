{
  "schema": "mill-card/signature/1",
  "key": "MFkwEwYHKoZIzj0CAQYIKoZIzj0DAQcDQgAEv81h8/+PGchsrBPuzVl23N0Ip98UadhbZWe1g4SRTBsZBY/5bC3kgSmHMDXhLA6o4I6IWL3O5WWValQBcheXKQ==",
  "signature": "MEQCIGoa9mrZzLC37HXU6nec+lFzu5Rrd3SSO5tIS+nVugxAAiAYb7cb/WuM0tf/deWTgT6oTXd3eDEoPVcatoFLDSY7hA=="
}
